package dev.verbale.report;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import tools.jackson.core.JsonGenerator;

/**
 * How tests went by what they belong to: as the page's list groups them, so that each number leads to rows that are as many. Those with
 * most tests that need attention come first.
 */
final class SummaryTables {

    private static final int LONGEST = 12;

    /** Of the tests that share something. */
    private static final class Sum {
        private int tests;
        private int attention;
        private int flaky;
        private Duration time = Duration.ZERO;
    }

    private final JsonGenerator json;
    private final List<Row> rows;

    private SummaryTables(JsonGenerator json, List<Row> rows) {
        this.json = json;
        this.rows = rows;
    }

    /** @param rows those that count */
    static void write(JsonGenerator json, List<Row> rows) {
        var tables = new SummaryTables(json, rows);
        json.writeArrayPropertyStart("tables");
        tables.table("module", row -> row.module().isEmpty() ? List.of() : List.of(row.module()));
        tables.table("class", row -> List.of(RowGroups.ofClass(row)));
        tables.table("package", row -> List.of(RowGroups.ofPackage(row)));
        tables.table("tag", Row::tags);
        tables.table(
                "owner",
                row -> row.about().owner() == null
                        ? List.of()
                        : List.of(row.about().owner()));
        tables.table(
                "severity",
                row -> row.about().severity() == null
                        ? List.of()
                        : List.of(row.about().severity()));
        json.writeEndArray();
    }

    private void table(String by, Function<Row, List<String>> groups) {
        Map<String, Sum> sums = new LinkedHashMap<>();
        for (Row row : rows)
            for (String group : groups.apply(row)) {
                Sum sum = sums.computeIfAbsent(group, first -> new Sum());
                sum.tests++;
                if (row.outcome().needsAttention()) sum.attention++;
                if (row.recovered()) sum.flaky++;
                sum.time = sum.time.plus(row.duration());
            }
        if (sums.isEmpty()) return;
        List<Map.Entry<String, Sum>> sorted = new ArrayList<>(sums.entrySet());
        sorted.sort((a, b) -> a.getValue().attention != b.getValue().attention
                ? Integer.compare(b.getValue().attention, a.getValue().attention)
                : a.getKey().compareTo(b.getKey()));
        json.writeStartObject();
        json.writeStringProperty("by", by);
        json.writeNumberProperty("groups", sorted.size());
        json.writeArrayPropertyStart("rows");
        for (var group : sorted.subList(0, Math.min(LONGEST, sorted.size()))) {
            json.writeStartArray();
            json.writeString(group.getKey());
            json.writeNumber(group.getValue().tests);
            json.writeNumber(group.getValue().attention);
            json.writeNumber(group.getValue().flaky);
            json.writeNumber(RunFile.micros(group.getValue().time));
            json.writeEndArray();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
