package dev.verbale.query;

import dev.verbale.query.values.StoredText;
import dev.verbale.results.ModuleKey;
import dev.verbale.vocabulary.Outcome;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jdbi.v3.core.Handle;
import org.jspecify.annotations.Nullable;

/** The numbers of what many rows have in common. A number is new only within the transaction that stores it. */
final class StoredNames {

    private final Handle handle;
    private final Map<String, Integer> tests;
    private final Set<String> withoutClass = new HashSet<>();
    private final Map<String, Integer> outcomes;
    private final Map<String, Integer> reasons;

    StoredNames(Handle handle) {
        this.handle = handle;
        tests = known("stored_tests", "test", "test_id");
        outcomes = known("stored_outcomes", "outcome", "outcome_id");
        reasons = known("stored_reasons", "reason", "reason_id");
        handle.createQuery("select test from " + Database.SCHEMA + ".stored_tests where class_name is null")
                .mapTo(String.class)
                .forEach(withoutClass::add);
    }

    private Map<String, Integer> known(String table, String text, String number) {
        Map<String, Integer> known = new HashMap<>();
        handle.createQuery("select " + text + ", " + number + " from " + Database.SCHEMA + "." + table)
                .map((row, context) -> Map.entry(row.getString(1), row.getInt(2)))
                .forEach(entry -> known.put(entry.getKey(), entry.getValue()));
        return known;
    }

    int test(String key, String name, @Nullable String className, @Nullable String methodName) {
        String stored = StoredText.of(key, StoredText.LONG);
        Integer there = tests.get(stored);
        if (there != null) {
            if (className != null && withoutClass.remove(stored)) addClass(there, className, methodName);
            return there;
        }
        int number = tests.size() + 1;
        handle.execute(
                "insert into " + Database.SCHEMA
                        + ".stored_tests (test_id, test, module, name, class_name, method_name) values (?, ?, ?, ?, ?, ?)",
                number,
                stored,
                StoredText.of(ModuleKey.module(key), StoredText.NAME),
                StoredText.of(name, StoredText.LONG),
                StoredText.orNull(className, StoredText.NAME),
                StoredText.orNull(methodName, StoredText.NAME));
        tests.put(stored, number);
        return number;
    }

    /** Runs that were remembered by a Verbale before this one do not say it; a later one does. */
    private void addClass(int test, String className, @Nullable String methodName) {
        handle.execute(
                "update " + Database.SCHEMA + ".stored_tests set class_name = ?, method_name = ? where test_id = ?",
                StoredText.of(className, StoredText.NAME),
                StoredText.orNull(methodName, StoredText.NAME),
                test);
    }

    int outcome(Outcome outcome) {
        String stored = StoredText.of(outcome.word(), StoredText.WORD);
        Integer there = outcomes.get(stored);
        if (there != null) return there;
        int number = outcomes.size() + 1;
        handle.execute(
                "insert into " + Database.SCHEMA
                        + ".stored_outcomes (outcome_id, outcome, needs_attention) values (?, ?, ?)",
                number,
                stored,
                outcome.needsAttention());
        outcomes.put(stored, number);
        return number;
    }

    int reason(String id, String title) {
        String stored = StoredText.of(id, StoredText.WORD);
        Integer there = reasons.get(stored);
        if (there != null) return there;
        int number = reasons.size() + 1;
        handle.execute(
                "insert into " + Database.SCHEMA + ".stored_reasons (reason_id, reason, title) values (?, ?, ?)",
                number,
                stored,
                StoredText.of(title, StoredText.LONG));
        reasons.put(stored, number);
        return number;
    }
}
