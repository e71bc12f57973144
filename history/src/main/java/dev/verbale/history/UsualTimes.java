package dev.verbale.history;

import dev.verbale.history.RunColumns.Times;
import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.vocabulary.Outcome;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** What tests took in some runs, where they passed at once. The times of these runs are read once. */
final class UsualTimes {

    private final Suite suite;
    private final int[] numbers;
    private final int[][] millis;
    private final int[][] workers;

    /** @param numbers of the runs in the suite, in their order */
    UsualTimes(Suite suite, int[] numbers) {
        this.suite = suite;
        this.numbers = numbers;
        millis = new int[numbers.length][];
        workers = new int[numbers.length][];
        for (int i = 0; i < numbers.length; i++) {
            Times times = suite.columns(numbers[i]).times();
            millis[i] = times.millis();
            workers[i] = times.workers();
        }
    }

    int runs() {
        return numbers.length;
    }

    /** Null where no run has the test. */
    @Nullable
    Durations of(String key) {
        TestRow row = suite.row(key);
        return row == null ? null : of(row);
    }

    Durations of(TestRow row) {
        int[] run = new int[numbers.length];
        int[] worker = new int[numbers.length];
        double[] logs = new double[numbers.length];
        int size = 0;
        for (int i = 0; i < numbers.length; i++) {
            int position = suite.position(row, numbers[i]);
            if (position < 0 || position >= millis[i].length || !isPlain(row.in(numbers[i]))) continue;
            run[size] = i;
            worker[size] = position < workers[i].length ? workers[i][position] : -1;
            logs[size++] = Math.log(Math.max(1, millis[i][position]));
        }
        return new Durations(Arrays.copyOf(run, size), Arrays.copyOf(worker, size), Arrays.copyOf(logs, size));
    }

    private static boolean isPlain(@Nullable Unusual unusual) {
        return unusual == null || unusual.outcome().equals(Outcome.PASSED) && !unusual.recovered();
    }
}
