package dev.verbale.export;

import dev.verbale.history.compare.Comparison;
import dev.verbale.results.Counts;
import dev.verbale.results.DurationText;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A run in Markdown, for the page that a CI system shows of a job: what it came to, what is new, the reasons. As long as is allowed,
 * and whole lines only. Nothing that a test recorded is read as Markdown or HTML.
 *
 * @since 0.2.0
 */
public final class MarkdownSummary {

    /** What the most narrow of the common CI systems takes. */
    public static final int USUAL_LIMIT = 1_000_000;

    private static final int LONGEST_TITLE = 200;
    private static final int MAX_TESTS = 10;
    private static final Pattern SPECIAL = Pattern.compile("[\\\\`*_{}\\[\\]()#+.!|<>~&@:$-]");
    private static final Pattern CONTROLS = Pattern.compile("\\p{Cntrl}+");

    private MarkdownSummary() {}

    /**
     * @param comparison with an earlier run; null for none
     * @param limit how many bytes of UTF-8 it may have, 500 at least
     */
    public static String of(Run run, @Nullable Comparison comparison, int limit) {
        return of(run, comparison, Labels.NONE, limit);
    }

    /**
     * The same, with what a team says of failures.
     *
     * @param comparison with an earlier run; null for none
     * @param limit how many bytes of UTF-8 it may have, 500 at least
     */
    public static String of(Run run, @Nullable Comparison comparison, Labels labels, int limit) {
        List<FailureReason> reasons = FailureReason.of(run);
        List<String> lines = new ArrayList<>();
        lines.add("## " + escaped(run.name()));
        lines.add("");
        lines.add(escaped(Headline.of(run, reasons)));
        if (comparison != null) {
            lines.add("");
            lines.add(
                    "Beside " + escaped(comparison.baseline().text()) + ": **" + escaped(comparison.sentence()) + "**");
        }
        counts(lines, run);
        if (comparison != null) newFailures(lines, comparison);
        reasons(lines, reasons, labels);
        return within(lines, Math.max(500, limit));
    }

    private static void counts(List<String> lines, Run run) {
        Counts counts = run.counts();
        if (counts.all() + counts.broken() == 0) return;
        lines.add("");
        lines.add("| outcome | tests |");
        lines.add("|---|---:|");
        for (Outcome outcome : counts.byOutcome().keySet())
            lines.add("| " + escaped(outcome.text()) + " | " + counts.of(outcome) + " |");
        if (counts.flaky() > 0) lines.add("| of them flaky | " + counts.flaky() + " |");
        if (counts.broken() > 0) lines.add("| classes broken outside their tests | " + counts.broken() + " |");
        lines.add("| in " + escaped(DurationText.of(run.duration())) + " | " + counts.all() + " |");
    }

    private static void newFailures(List<String> lines, Comparison comparison) {
        if (comparison.newFailures().isEmpty()) return;
        lines.add("");
        lines.add("### New failures");
        lines.add("");
        for (Comparison.Change change : comparison.newFailures())
            lines.add("- " + text(change.after().name())
                    + (change.isOfFlaky() ? " (" + text(change.flakiness().sentence()) + " anyway)" : ""));
    }

    private static void reasons(List<String> lines, List<FailureReason> reasons, Labels labels) {
        if (reasons.isEmpty()) return;
        lines.add("");
        lines.add("### Reasons");
        for (FailureReason reason : reasons) {
            lines.add("");
            int tests = reason.tests().size() + reason.containers().size();
            lines.add("**" + text(reason.title()) + "** (" + tests + (tests == 1 ? " test)" : " tests)"));
            for (String label : labels.of(reason)) {
                lines.add("");
                lines.add("*" + text(label) + "*");
            }
            if (reason.evidence() != null) {
                lines.add("");
                lines.add("> " + text(reason.evidence()));
            }
            lines.add("");
            for (TestResult test :
                    reason.tests().subList(0, Math.min(MAX_TESTS, reason.tests().size())))
                lines.add("- "
                        + text(String.join(" › ", test.path()) + (test.path().isEmpty() ? "" : " › ") + test.name()));
            if (reason.tests().size() > MAX_TESTS)
                lines.add("- and " + (reason.tests().size() - MAX_TESTS) + " more");
        }
    }

    private static String text(String recorded) {
        return escaped(Texts.cut(recorded, LONGEST_TITLE));
    }

    /** CommonMark 0.31, 2.4: a backslash before any of its punctuation makes it an ordinary character. */
    static String escaped(String text) {
        return SPECIAL.matcher(CONTROLS.matcher(text).replaceAll(" ").strip()).replaceAll("\\\\$0");
    }

    private static String within(List<String> lines, int limit) {
        var text = new StringBuilder();
        int bytes = 0;
        int last = 40; // for the line that says that there is more
        for (int i = 0; i < lines.size(); i++) {
            int more = lines.get(i).getBytes(StandardCharsets.UTF_8).length + 1;
            if (bytes + more > limit - last) {
                text.append("\n… ").append(lines.size() - i).append(" lines more\n");
                break;
            }
            text.append(lines.get(i)).append('\n');
            bytes += more;
        }
        return text.toString();
    }
}
