package dev.verbale.report;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import tools.jackson.core.JsonGenerator;

/**
 * The run in slices of time, each with the attempts that began in it: what the strip is drawn from. They are where they happened, on
 * one scale, whether a run has ten of them or a million.
 */
final class TimeSlices {

    static final int SLICES = 300;

    /** What began in one of them. */
    private static final class Slice {
        private final List<Row> attention = new ArrayList<>();
        private Row gravest;
        private int all;

        private Slice(Row first) {
            gravest = first;
        }

        private void add(Row row) {
            all++;
            if (row.outcome().needsAttention()) attention.add(row);
            if (compare(row, gravest) > 0) gravest = row;
        }

        /** What somebody has to look at, before what was run again, before the rest. */
        private static int compare(Row a, Row b) {
            int rank = Integer.compare(rank(a), rank(b));
            return rank != 0 ? rank : a.outcome().compareTo(b.outcome());
        }

        private static int rank(Row row) {
            if (!row.outcome().needsAttention()) return 0;
            return row.superseded() ? 1 : 2;
        }
    }

    private TimeSlices() {}

    static void write(JsonGenerator json, List<Row> rows, Instant started, Duration duration) {
        long width = Math.max(1, (RunFile.micros(duration) + SLICES - 1) / SLICES);
        var slices = new TreeMap<Long, Slice>();
        for (Row row : rows) {
            if (!row.isTest()) continue;
            long at = Math.max(0, RunFile.micros(Duration.between(started, row.started())));
            long number = Math.min(SLICES - 1, at / width);
            slices.computeIfAbsent(number, first -> new Slice(row)).add(row);
        }
        json.writeObjectPropertyStart("strip");
        json.writeNumberProperty("slices", SLICES);
        json.writeNumberProperty("width", width);
        json.writeArrayPropertyStart("filled");
        slices.forEach((number, slice) -> {
            json.writeStartObject();
            json.writeNumberProperty("slice", number);
            json.writeNumberProperty("attempts", slice.all);
            json.writeNumberProperty("attention", slice.attention.size());
            json.writeStringProperty("outcome", slice.gravest.outcome().word());
            if (slice.gravest.superseded()) json.writeBooleanProperty("superseded", true);
            json.writeStringProperty("id", slice.gravest.id());
            json.writeStringProperty("name", slice.gravest.name());
            json.writeEndObject();
        });
        json.writeEndArray();
        json.writeEndObject();
    }
}
