package dev.verbale.results.summary;

import dev.verbale.event.FactStated;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Counts;
import dev.verbale.results.Incomplete;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Says what a run came to, in sentences that need no knowledge of testing.
 *
 * @since 0.2.0
 */
public final class Headline {

    private static final int MAX_NAMED = 2;
    private static final int MAX_REASONS = 3;
    private static final int LONGEST_NAME = 100;
    private static final int LONGEST_LEFT_OUT = 300;

    private Headline() {}

    /** Such as {@code 6 of 47 tests did not pass: 4 failed, 2 errored, for 5 reasons.} */
    public static String of(Run run) {
        return of(run, FailureReason.of(run));
    }

    /**
     * The headline for who has the reasons already: finding them takes a second where thousands failed.
     *
     * @param reasons of the run, as {@link FailureReason#of(Run)} gives them
     */
    public static String of(Run run, List<FailureReason> reasons) {
        Incomplete incomplete = run.incomplete();
        String part = part(run);
        String leftOut = leftOut(run);
        return withoutGaps(run, reasons)
                + (part.isEmpty() ? "" : " " + part)
                + (leftOut.isEmpty() ? "" : " " + leftOut)
                + (incomplete.isNothing() ? "" : " " + incomplete.sentence());
    }

    /** The first reasons, for whoever has three lines for them, such as {@code 3 tests: GET /api/compost got no response}. */
    public static List<String> firstReasons(List<FailureReason> reasons) {
        List<String> lines = new ArrayList<>();
        int shown = reasons.size() <= MAX_REASONS ? reasons.size() : MAX_REASONS - 1;
        for (FailureReason reason : reasons.subList(0, shown)) {
            int tests = reason.tests().size();
            String title = reason.title().strip().replaceAll("\\s*\\R\\s*", " ").replaceAll("\\p{Cntrl}", "\uFFFD");
            lines.add((tests == 0 ? "" : tests(tests) + ": ") + Texts.cut(title, LONGEST_NAME));
        }
        if (reasons.size() > shown)
            lines.add("and " + whole(reasons.size() - shown) + " more reasons: verbale failures");
        return lines;
    }

    /** That it was not meant to be the whole suite, such as {@code Only a part of the suite was run: shard 2 of 4.}; empty where it was. */
    public static String part(Run run) {
        String part = RunPart.of(run.facts());
        return part.isEmpty() ? "" : "Only a part of the suite was run: " + Texts.cut(part, LONGEST_NAME) + ".";
    }

    /** That this copy of the run lacks something that was recorded, such as {@code Left out of this copy: 3 videos.}; empty where it does not. */
    public static String leftOut(Run run) {
        String what = run.facts().getOrDefault(FactStated.LEFT_OUT, "");
        return what.isEmpty() ? "" : "Left out of this copy: " + Texts.cut(what, LONGEST_LEFT_OUT) + ".";
    }

    /** The headline without what the run lacks or left out, for whoever says that beside it; see {@link Incomplete} and {@link #part}. */
    public static String withoutGaps(Run run, List<FailureReason> reasons) {
        Counts counts = run.counts();
        int all = counts.all();
        var text = new StringBuilder();
        if (all == 0) text.append("No test was recorded.");
        else if (counts.failing() == 0) text.append(calm(counts, all));
        else text.append(troubled(counts, all)).append(reasons(reasons.size())).append('.');
        int flaky = counts.flaky();
        if (flaky > 0)
            text.append(' ')
                    .append(whole(flaky))
                    .append(flaky == 1 ? " test is flaky: it passed" : " tests are flaky: they passed")
                    .append(" on a later attempt.");
        broken(run.brokenContainers(), text);
        int outside = run.failedOutsideTests().size();
        if (outside > 0)
            text.append(' ')
                    .append(outside == 1 ? "1 step" : whole(outside) + " steps")
                    .append(" outside the tests failed.");
        return text.toString();
    }

    /** By name where they are few: this is one sentence, and large on the page. */
    private static void broken(List<ContainerResult> containers, StringBuilder text) {
        if (containers.isEmpty()) return;
        if (containers.size() > MAX_NAMED) {
            int notRun = containers.stream().mapToInt(ContainerResult::notRun).sum();
            text.append(' ').append(whole(containers.size())).append(" classes broke outside their tests");
            if (notRun > 0) text.append("; ").append(tests(notRun)).append(" of them did not run");
            text.append('.');
            return;
        }
        for (ContainerResult broken : containers) {
            text.append(" \"").append(Texts.cut(broken.name(), LONGEST_NAME)).append("\" broke outside its tests");
            if (broken.notRun() > 0)
                text.append("; ").append(tests(broken.notRun())).append(" of it did not run");
            text.append('.');
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
            if (counts.of(outcome) > 0) parts.add(whole(counts.of(outcome)) + " " + outcome.text());
        return whole(counts.failing()) + " of " + tests(all) + " did not pass: " + String.join(", ", parts);
    }

    private static String aside(Counts counts) {
        List<String> parts = new ArrayList<>();
        for (Outcome outcome : List.of(Outcome.SKIPPED, Outcome.ABORTED, Outcome.EXPECTED_FAILURE))
            if (counts.of(outcome) > 0) parts.add(whole(counts.of(outcome)) + " " + outcome.text());
        return parts.isEmpty() ? "" : " (" + String.join(", ", parts) + ")";
    }

    private static String reasons(int reasons) {
        if (reasons == 0) return "";
        return reasons == 1 ? ", for one reason" : ", for " + whole(reasons) + " reasons";
    }

    private static String tests(int count) {
        return count == 1 ? "1 test" : whole(count) + " tests";
    }

    /** Such as {@code 100,000}. */
    private static String whole(int number) {
        return String.format(Locale.ROOT, "%,d", number);
    }
}
