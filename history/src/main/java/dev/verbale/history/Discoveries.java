package dev.verbale.history;

import java.util.Arrays;

/**
 * Which of many claims may be made so that of those that are, one in forty is expected to be false, however many tests were looked at
 * (Benjamini and Hochberg, "Controlling the false discovery rate", Journal of the Royal Statistical Society B 57(1), 1995).
 */
final class Discoveries {

    private static final double FALSE_SHARE = 0.025;

    private Discoveries() {}

    /**
     * The largest p that is a discovery; 0 where none is.
     *
     * @param p of all that was looked at, each from 0 to 1
     */
    static double threshold(double[] p) {
        double[] sorted = p.clone();
        Arrays.sort(sorted);
        for (int i = sorted.length; i > 0; i--)
            if (sorted[i - 1] <= FALSE_SHARE * i / sorted.length) return sorted[i - 1];
        return 0;
    }
}
