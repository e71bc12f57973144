package dev.verbale.query.remembered;

import dev.verbale.history.RunResults;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import dev.verbale.query.values.StoredText;
import dev.verbale.results.ModuleKey;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.h2.value.Value;
import org.h2.value.ValueNull;
import org.h2.value.ValueVarchar;
import org.jspecify.annotations.Nullable;

/** The texts of one suite's tests as the database's values, each made once for all runs that have it, when it is asked for. */
final class SuiteTexts {

    private final RunResults results;
    private final Map<ResultColumn, Value[]> columns = new HashMap<>();
    private final Map<String, Value> values = new HashMap<>();
    private @Nullable Map<String, Integer> positions;

    /** @param results of any of the runs */
    SuiteTexts(RunResults results) {
        this.results = results;
    }

    Value of(ResultColumn column, int position) {
        Value[] made = columns.get(column);
        if (made == null) {
            made = make(column);
            columns.put(column, made);
        }
        return position < made.length ? made[position] : ValueNull.INSTANCE;
    }

    private Value[] make(ResultColumn column) {
        return switch (column) {
            case TEST -> values(results.keys(), key -> key);
            case MODULE -> values(results.keys(), ModuleKey::module);
            case NAME -> values(results.names(), name -> name);
            case CLASS_NAME -> values(results.origins(), Origin::className);
            case METHOD_NAME -> values(results.origins(), Origin::methodName);
            case TAGS -> values(results.origins(), origin -> String.join(" ", origin.tags()));
            case OWNER -> values(results.origins(), Origin::owner);
            default -> throw new IllegalArgumentException(column + " is no text of a suite");
        };
    }

    private <T> Value[] values(List<T> all, Function<T, @Nullable String> text) {
        return all.stream().map(one -> value(text.apply(one))).toArray(Value[]::new);
    }

    private Value value(@Nullable String text) {
        return text == null
                ? ValueNull.INSTANCE
                : values.computeIfAbsent(StoredText.of(text, StoredText.LONG), ValueVarchar::get);
    }

    /** Where the test with this key stands; -1 for nowhere. */
    int position(String wanted) {
        Map<String, Integer> made = positions;
        if (made == null) {
            made = new HashMap<>();
            int at = 0;
            for (String key : results.keys()) made.putIfAbsent(StoredText.of(key, StoredText.LONG), at++);
            positions = made;
        }
        return made.getOrDefault(wanted, -1);
    }
}
