package dev.verbale.history;

import java.util.Arrays;

/**
 * How long one test, or step, took in the runs that count, where it passed at once: arrays beside each other.
 *
 * @param run which run, counted among those that count
 * @param worker which worker of that run, from 0
 * @param logMillis the natural logarithm of the milliseconds, or of one
 */
record Durations(int[] run, int[] worker, double[] logMillis) {

    double median() {
        return ChangePoint.median(logMillis);
    }

    /** These, and one more at the end. */
    Durations with(int inRun, int onWorker, double log) {
        int size = run.length;
        int[] runs = Arrays.copyOf(run, size + 1);
        int[] workers = Arrays.copyOf(worker, size + 1);
        double[] logs = Arrays.copyOf(logMillis, size + 1);
        runs[size] = inRun;
        workers[size] = onWorker;
        logs[size] = log;
        return new Durations(runs, workers, logs);
    }
}
