package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.GeneratedNights.Shape;
import dev.verbale.history.compare.Comparison;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** What is claimed of many nights, beside what is true of them. Prints the table that the documentation has. */
class JudgementTest {

    private static final int SEEDS = Integer.getInteger("verbale.seeds", 2);

    /** How often something was so, of how many. */
    private static final class Share {
        private int is;
        private int all;

        void add(boolean one) {
            all++;
            if (one) is++;
        }

        double of(double none) {
            return all == 0 ? none : (double) is / all;
        }

        @Override
        public String toString() {
            return is + " of " + all;
        }
    }

    private final Share flakyTrue = new Share();
    private final Share flakyFound = new Share();
    private final Share inInterval = new Share();
    private final Share slowerTrue = new Share();
    private final Share slowerFound = new Share();
    private final Share slowerKept = new Share();
    private final Share newTrue = new Share();
    private final Share newFound = new Share();
    private final Share brokenTrue = new Share();
    private final Share brokenFound = new Share();
    private final Share outages = new Share();
    private final Share outagesTrue = new Share();

    @Test
    void of_what_is_claimed_nearly_all_is_true_and_nearly_all_that_is_true_is_found() {
        Map<String, String> table = new TreeMap<>();
        for (Shape shape : GeneratedNights.SHAPES)
            for (int seed = 0; seed < SEEDS; seed++) judge(new GeneratedNights(shape, 1_000L * seed + 7));
        table.put("flaky, true of claimed", flakyTrue.toString());
        table.put("flaky, found within 30 nights", flakyFound.toString());
        table.put("flaky, rate in interval", inInterval.toString());
        table.put("slower, true of claimed", slowerTrue.toString());
        table.put("slower, found within 5 nights", slowerFound.toString());
        table.put("slower, said on the last night", slowerKept.toString());
        table.put("new, true of claimed", newTrue.toString());
        table.put("new, found on the first night", newFound.toString());
        table.put("broken, true of claimed", brokenTrue.toString());
        table.put("broken, found", brokenFound.toString());
        table.put("nights that were not themselves, found", outages.toString());
        table.put("nights that were not themselves, true", outagesTrue.toString());
        table.forEach((what, share) -> System.out.println(what + ": " + share));

        assertThat(flakyTrue.of(1)).isGreaterThanOrEqualTo(0.95);
        // Two histories of each kind are few: with ten, nine of ten are found.
        assertThat(flakyFound.of(1)).isGreaterThanOrEqualTo(0.85);
        assertThat(inInterval.of(1)).isGreaterThanOrEqualTo(0.9);
        // The others are of flaky tests that failed two or three times so far: nobody can tell yet.
        assertThat(newTrue.of(1)).isGreaterThanOrEqualTo(0.9);
        assertThat(newFound.of(1)).isGreaterThanOrEqualTo(0.9);
        assertThat(brokenTrue.of(1)).isGreaterThanOrEqualTo(0.95);
        assertThat(brokenFound.of(1)).isGreaterThanOrEqualTo(0.9);
        assertThat(slowerTrue.of(1)).isGreaterThanOrEqualTo(0.95);
        assertThat(slowerFound.of(1)).isGreaterThanOrEqualTo(0.85);
        assertThat(slowerKept.of(1)).isGreaterThanOrEqualTo(0.9);
    }

    /** What is new each night beside the night before, once the suite is known. */
    private void news(GeneratedNights nights) {
        for (int night = 30; night < nights.shape.nights(); night++) {
            int now = night;
            Comparison comparison =
                    Comparison.of(nights.digests.get(night - 1), nights.digests.get(night), nights.upTo(night));
            List<String> claimed = comparison.newOfSteady().stream()
                    .map(change -> change.after().key())
                    .toList();
            for (String key : claimed) newTrue.add(nights.begins(key, night));
            nights.broken.forEach((key, when) -> {
                boolean isNew = when[0] == now
                        && comparison.newFailures().stream()
                                .anyMatch(it -> it.after().key().equals(key));
                if (isNew) newFound.add(claimed.contains(key));
            });
        }
    }

    /** Which tests are broken after each tenth night. */
    private void broken(GeneratedNights nights) {
        for (int until = 20; until <= nights.shape.nights(); until += 10) {
            History history = nights.upTo(until);
            int last = until - 1;
            for (String key : history.tests()) {
                boolean claimed = history.flakiness(key).brokenProbability() > 0.5;
                int[] when = nights.broken.get(key);
                boolean is = when != null && when[0] <= last && last < when[1];
                if (claimed) brokenTrue.add(is);
                if (is) brokenFound.add(claimed);
            }
        }
    }

    private void judge(GeneratedNights nights) {
        int last = nights.shape.nights();
        for (int until = 10; until <= last; until += 10) {
            History history = nights.upTo(until);
            for (TestHistory one : history.flaky(999)) flakyTrue.add(nights.flaky.containsKey(one.key()));
            for (TestHistory one : history.slower(999)) {
                Integer since = nights.slower.get(one.key());
                slowerTrue.add(since != null && since < until);
            }
        }
        History after30 = nights.upTo(30);
        History all = nights.upTo(last);
        nights.flaky.forEach((key, rate) -> {
            Flakiness flakiness = after30.flakiness(key);
            flakyFound.add(flakiness.isFlaky());
            Flakiness newest = all.flakiness(key);
            if (newest.isFlaky()) inInterval.add(newest.low() <= rate && rate <= newest.high());
        });
        nights.slower.forEach((key, since) -> {
            DurationStep step =
                    nights.upTo(Math.min(last, since + 5)).durationStep(key).orElse(null);
            slowerFound.add(step != null && step.factor() > 1);
            DurationStep kept = all.durationStep(key).orElse(null);
            slowerKept.add(kept != null && kept.factor() > 1);
        });
        news(nights);
        broken(nights);
        nights.outages
                .keySet()
                .forEach(night -> outages.add(all.disturbances().stream()
                        .anyMatch(one -> one.run()
                                .name()
                                .equals(nights.digests.get(night).run()))));
        all.disturbances()
                .forEach(one -> outagesTrue.add(nights.outages.keySet().stream()
                        .anyMatch(night -> one.run()
                                .name()
                                .equals(nights.digests.get(night).run()))));
    }
}
