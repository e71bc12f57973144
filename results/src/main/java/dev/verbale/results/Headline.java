package dev.verbale.results;

import dev.verbale.event.FactStated;
import dev.verbale.event.Outcome;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Says what a run came to, in sentences that need no knowledge of testing. */
public final class Headline {

    private static final int MOST_NAMED = 2;
    private static final int LONGEST_NAME = 100;

    private Headline() {}

    /** Such as {@code 6 of 47 tests did not pass: 4 failed, 2 errored. They have 5 causes.} */
    public static String of(Run run) {
        Incomplete incomplete = run.incomplete();
        return withoutGaps(run) + (incomplete.isNothing() ? "" : " " + incomplete.sentence());
    }

    /** The same without what the run lacks, for whoever says that beside it; see {@link Incomplete}. */
    public static String withoutGaps(Run run) {
        Counts counts = run.counts();
        int all = counts.all();
        var said = new StringBuilder();
        if (all == 0) {
            said.append("No test was recorded.");
            String unheard = run.facts().get(FactStated.UNHEARD);
            if (unheard != null) said.append(" There were ").append(unheard).append('.');
        } else if (counts.needingAttention() == 0) said.append(calm(counts, all));
        else said.append(troubled(counts, all)).append(causes(run));
        int flaky = run.flaky().size();
        if (flaky > 0)
            said.append(' ')
                    .append(whole(flaky))
                    .append(flaky == 1 ? " test passed" : " tests passed")
                    .append(" only when run again.");
        broken(run.brokenContainers(), said);
        int outside = run.failedOutsideTests().size();
        if (outside > 0)
            said.append(' ')
                    .append(outside == 1 ? "1 step" : whole(outside) + " steps")
                    .append(" outside the tests failed.");
        return said.toString();
    }

    /** By name where they are few: this is one sentence, and large on the page. */
    private static void broken(List<ContainerResult> containers, StringBuilder said) {
        if (containers.isEmpty()) return;
        if (containers.size() > MOST_NAMED) {
            int notRun = containers.stream().mapToInt(ContainerResult::notRun).sum();
            said.append(' ').append(whole(containers.size())).append(" classes broke outside their tests");
            if (notRun > 0) said.append("; ").append(tests(notRun)).append(" of them did not run");
            said.append('.');
            return;
        }
        for (ContainerResult broken : containers) {
            said.append(" \"").append(Texts.cut(broken.name(), LONGEST_NAME)).append("\" broke outside its tests");
            if (broken.notRun() > 0)
                said.append("; ").append(tests(broken.notRun())).append(" of it did not run");
            said.append('.');
        }
    }

    private static String calm(Counts counts, int all) {
        int passed = counts.of(Outcome.PASSED);
        if (passed == all) return all == 1 ? "The one test passed." : "All " + whole(all) + " tests passed.";
        return whole(passed) + " of " + tests(all) + " passed, and none failed" + aside(counts) + ".";
    }

    private static String troubled(Counts counts, int all) {
        List<String> parts = new ArrayList<>();
        for (Outcome outcome : List.of(Outcome.FAILED, Outcome.ERRORED, Outcome.UNFINISHED))
            if (counts.of(outcome) > 0) parts.add(whole(counts.of(outcome)) + " " + outcome.word());
        return whole(counts.needingAttention()) + " of " + tests(all) + " did not pass: " + String.join(", ", parts)
                + ".";
    }

    private static String aside(Counts counts) {
        List<String> parts = new ArrayList<>();
        for (Outcome outcome : List.of(Outcome.SKIPPED, Outcome.ABORTED, Outcome.EXPECTED))
            if (counts.of(outcome) > 0) parts.add(whole(counts.of(outcome)) + " " + outcome.word());
        return parts.isEmpty() ? "" : " (" + String.join(", ", parts) + ")";
    }

    private static String causes(Run run) {
        int causes = Cause.of(run).size();
        if (causes == 0) return "";
        return causes == 1 ? " They have one cause." : " They have " + whole(causes) + " causes.";
    }

    private static String tests(int count) {
        return count == 1 ? "1 test" : whole(count) + " tests";
    }

    /** Such as {@code 100,000}. */
    private static String whole(int number) {
        return String.format(Locale.ROOT, "%,d", number);
    }
}
