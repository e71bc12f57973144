package dev.verbale.history;

import java.util.List;
import org.hipparchus.distribution.continuous.BetaDistribution;

/**
 * How often a test failed that was not broken.
 *
 * <p>Counted are runs in which it passed only on a later attempt, and single failures between two passes; a longer stretch of
 * failures is a test that was broken, and its runs count neither for nor against.
 *
 * @param flickers how many such runs there are
 * @param runs how many runs count
 * @param wilson the lower end of the 90 % interval of the rate by Wilson (1927), by which tests are ranked: it is low where there are few
 *     runs
 * @param low the lower end of the 90 % interval by Jeffreys (Brown, Cai and DasGupta 2001), which a reader is shown
 * @param high its upper end
 * @since 0.2.0
 */
public record Flakiness(int flickers, int runs, double wilson, double low, double high) {

    private static final double Z = 1.6448536269514722; // 95 % of the normal distribution, one side
    /** Below it a test may as well be one that failed once, by a power cut. */
    private static final double LEAST_LOW = 0.005;

    /** Counts, run after run. */
    static final class Count {
        private int flickers;
        private int runs;
        private int failures; // since the last pass
        private boolean passedBefore;

        void add(boolean failed, boolean passed, boolean recovered) {
            if (failed) failures++;
            if (!passed) return;
            if (failures == 1 && passedBefore) {
                runs++;
                flickers++;
            }
            failures = 0;
            passedBefore = true;
            runs++;
            if (recovered) flickers++;
        }

        int flickers() {
            return flickers;
        }

        int runs() {
            return runs;
        }
    }

    static Flakiness of(List<Appearance> appearances) {
        var count = new Count();
        for (Appearance one : appearances) count.add(one.failed(), one.passed(), one.recovered());
        return of(count.flickers(), count.runs());
    }

    static double wilson(int flickers, int runs) {
        double rate = (double) flickers / runs;
        double square = Z * Z;
        double root = Math.sqrt(rate * (1 - rate) / runs + square / (4.0 * runs * runs));
        return Math.max(0, (rate + square / (2 * runs) - Z * root) / (1 + square / runs));
    }

    static Flakiness of(int flickers, int runs) {
        if (runs == 0) return new Flakiness(0, 0, 0, 0, 1);
        // With no success, or nothing else, the interval reaches its end.
        var beta = new BetaDistribution(flickers + 0.5, runs - flickers + 0.5);
        double low = flickers == 0 ? 0 : beta.inverseCumulativeProbability(0.05);
        double high = flickers == runs ? 1 : beta.inverseCumulativeProbability(0.95);
        return new Flakiness(flickers, runs, wilson(flickers, runs), low, high);
    }

    /** Whether it flickers more than chance explains. */
    public boolean isFlaky() {
        return flickers >= 1 && low > LEAST_LOW;
    }
}
