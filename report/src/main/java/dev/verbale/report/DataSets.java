package dev.verbale.report;

import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Finds the tests that ran over several rows of data, and writes what a table of these rows needs. */
final class DataSets {

    private final Map<String, Integer> numbers = new HashMap<>();

    DataSets(List<Row> rows) {
        Map<String, String> first = new HashMap<>();
        Set<String> ofSeveral = new HashSet<>();
        for (Row row : rows) {
            String method = method(row);
            String key = method == null ? null : first.putIfAbsent(method, row.key());
            if (method != null && key != null && !key.equals(row.key())) ofSeveral.add(method);
        }
        if (ofSeveral.isEmpty()) return;
        for (Row row : rows) {
            String method = method(row);
            if (method != null && ofSeveral.contains(method)) numbers.putIfAbsent(method, numbers.size());
        }
    }

    private static @Nullable String method(Row row) {
        return row.methodName() == null ? null : row.className() + "#" + row.methodName();
    }

    /** Which set it is one of; null for none. */
    @Nullable
    Integer number(Row row) {
        return numbers.isEmpty() ? null : numbers.get(String.valueOf(method(row)));
    }

    /** The first check of it that failed; null where none did, or it is of no set. */
    @Nullable
    String failing(Row row) {
        Entry.CheckEntry failing = number(row) == null ? null : DraftedTests.failing(row.entries());
        return failing == null ? null : failing.name();
    }

    /** What its checks found, by what they looked at; null where none says it, or it is of no set. */
    @Nullable
    List<Entry.CheckEntry> found(Row row) {
        if (number(row) == null) return null;
        Map<Integer, List<Entry.CheckEntry>> checks =
                row instanceof TestRow test ? ExchangeChecks.of(test.test()) : Map.of();
        List<Entry.CheckEntry> found = CheckedValues.of(row.entries(), checks);
        return found.isEmpty() ? null : found;
    }

    /** Its data, as pairs. */
    static void writeValues(JsonGenerator json, Row row) {
        json.writeStartArray();
        for (Entry entry : row.entries())
            if (entry instanceof Entry.DataEntry data) writePair(json, data.name(), data.value());
        json.writeEndArray();
    }

    /** What checks found, as pairs of what they looked at and the value. */
    static void writeFound(JsonGenerator json, List<Entry.CheckEntry> found) {
        json.writeStartArray();
        for (Entry.CheckEntry check : found) writePair(json, check.name(), String.valueOf(check.actual()));
        json.writeEndArray();
    }

    private static void writePair(JsonGenerator json, String name, String value) {
        json.writeStartArray();
        json.writeString(name);
        json.writeString(value);
        json.writeEndArray();
    }
}
