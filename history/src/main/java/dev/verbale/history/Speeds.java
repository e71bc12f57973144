package dev.verbale.history;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Which tests take another time than they did, by the newest of the runs that count. */
final class Speeds {

    private final Map<TestRow, DurationStep> steps = new HashMap<>();

    Speeds(Suite suite, int[] numbers, BitSet counted) {
        int[] last = Arrays.copyOfRange(numbers, Math.max(0, numbers.length - DurationStep.MAX_RUNS), numbers.length);
        var times = new UsualTimes(suite, last);
        List<TestRow> rows = new ArrayList<>();
        List<Durations> durations = new ArrayList<>();
        for (TestRow row : suite.rows()) {
            if (!suite.isIn(row, counted)) continue;
            rows.add(row);
            durations.add(times.of(row));
        }
        List<@Nullable DurationStep> all = DurationStep.of(
                Arrays.stream(last).mapToObj(number -> suite.runs().get(number)).toList(), durations);
        for (int i = 0; i < rows.size(); i++) {
            DurationStep step = all.get(i);
            if (step != null) steps.put(rows.get(i), step);
        }
    }

    @Nullable
    DurationStep of(TestRow row) {
        return steps.get(row);
    }

    /** Those that lost most time first. */
    List<TestRow> slower() {
        return steps.keySet().stream()
                .filter(row -> step(row).factor() > 1)
                .sorted(Comparator.comparingLong((TestRow row) -> -lost(step(row)))
                        .thenComparing(TestRow::key))
                .toList();
    }

    private DurationStep step(TestRow row) {
        return Objects.requireNonNull(steps.get(row));
    }

    private static long lost(DurationStep step) {
        return step.after().minus(step.before()).toMillis();
    }
}
