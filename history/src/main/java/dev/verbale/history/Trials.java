package dev.verbale.history;

/**
 * What became of one test in the runs that count, as arrays beside each other. Runs in which it was skipped are not in there.
 *
 * @param run which run, counted among those that count
 * @param failed how many of its attempts failed there
 * @param passed whether the last one passed
 * @param reason the number of the reason that it failed for; -1 for none
 * @param shared whether its failing there was part of a {@link Disturbance}: then it counts neither way
 */
record Trials(int[] run, byte[] failed, boolean[] passed, int[] reason, boolean[] shared) {

    /** Whether an attempt failed that was no part of a disturbance: only then there is something to judge. */
    boolean failedAlone() {
        for (int i = 0; i < run.length; i++) if (failed[i] > 0 && !shared[i]) return true;
        return false;
    }

    boolean isSharedIn(int number) {
        int last = run.length - 1;
        return last >= 0 && run[last] == number && shared[last];
    }
}
