package dev.verbale.cli;

import dev.verbale.event.Failure;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.BesideFailure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.DurationText;
import dev.verbale.results.Entry;
import dev.verbale.results.LastMoment;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Help.Ansi.Style;

/** The failures of a run for a terminal. */
final class FailureText {

    private static final String INDENT = "           "; // as wide as the longest outcome and the gap behind it
    private static final int MAX_BESIDE = 5;
    private static final int MESSAGE_LINES = 6;
    private static final int LONGEST_LINE = 300;
    private static final int MAX_TESTS = 20;
    private static final int MAX_OF_A_REASON = 3;
    private static final int MAX_REASONS = 30;

    private final Run run;
    private final Map<String, String> labels;
    private final TerminalText terminal;
    private final boolean all;

    /**
     * @param labels what the team says of tests, by their ids
     * @param all whether each test is shown, with all of its message, however many there are
     */
    FailureText(Run run, Map<String, String> labels, Ansi ansi, boolean all) {
        this.run = run;
        this.labels = labels;
        this.terminal = new TerminalText(ansi);
        this.all = all;
    }

    void print(PrintWriter out) {
        List<FailureReason> reasons = FailureReason.of(run);
        out.println(strong(Headline.of(run, reasons)));
        List<TestResult> tests = run.needingAttention();
        if (all || tests.size() <= MAX_TESTS) for (TestResult test : tests) test(out, test);
        else byReason(out, tests, reasons);
        for (ContainerResult container : run.brokenContainers()) {
            out.println();
            out.println(outcome(container.outcome()) + strong(container.name()) + notRun(container.notRun()));
            failure(out, container.failure());
            attachments(out, container.entries());
        }
        for (Entry.StepEntry step : run.failedOutsideTests()) {
            out.println();
            out.println(outcome(step.outcome()) + strong(step.name()) + dim("  outside the tests"));
            failure(out, step.failure());
            attachments(out, step.entries());
        }
        out.println();
        out.println(dim("Recorded in " + run.folder() + "; for the page: verbale page " + run.folder()));
    }

    private String notRun(int count) {
        if (count == 0) return "";
        return "  " + dim(count == 1 ? "1 of its tests did not run" : count + " of its tests did not run");
    }

    private void test(PrintWriter out, TestResult test) {
        out.println();
        out.println(outcome(test.outcome()) + strong(test.name()) + "  " + dim(DurationText.of(test.duration())));
        out.println(INDENT + dim(String.join(" › ", test.path())));
        String label = labels.get(test.id());
        if (label != null) out.println(INDENT + printable(label));
        failure(out, test.failure());
        lastStep(out, test);
        attachments(out, test.entries());
    }

    /** Where there are many, what they have in common says more than each of them. */
    private void byReason(PrintWriter out, List<TestResult> tests, List<FailureReason> all) {
        List<FailureReason> reasons =
                all.stream().filter(reason -> !reason.tests().isEmpty()).toList();
        for (FailureReason reason : reasons.subList(0, Math.min(MAX_REASONS, reasons.size()))) {
            int count = reason.tests().size();
            TestResult first = reason.tests().get(0);
            out.println();
            out.println(outcome(first.outcome()) + strong(count == 1 ? "1 test" : count + " tests") + "  "
                    + strong(Texts.cut(reason.title(), LONGEST_LINE)));
            reason.tests().stream()
                    .map(test -> labels.get(test.id()))
                    .filter(Objects::nonNull)
                    .distinct()
                    .forEach(label -> out.println(INDENT + printable(label)));
            if (reason.evidence() != null) out.println(INDENT + printable(reason.evidence()));
            if (!reason.frame().isEmpty()) out.println(INDENT + dim("at " + reason.frame()));
            for (TestResult test : reason.tests().subList(0, Math.min(MAX_OF_A_REASON, count)))
                out.println(INDENT + "  "
                        + printable(Texts.cut(String.join(" › ", test.path()) + " › " + test.name(), LONGEST_LINE)));
            if (count > MAX_OF_A_REASON) out.println(INDENT + dim("  and " + (count - MAX_OF_A_REASON) + " more"));
        }
        if (reasons.size() > MAX_REASONS) {
            out.println();
            out.println(dim("and " + (reasons.size() - MAX_REASONS) + " more reasons"));
        }
        out.println();
        out.println("These are " + tests.size()
                + " tests, by reason. Each of them, with its attachments: verbale failures --all " + run.folder());
    }

    private void failure(PrintWriter out, @Nullable Failure failure) {
        if (failure == null) return;
        String message = failure.message() == null ? failure.type() : failure.message();
        int limit = all ? Integer.MAX_VALUE : MESSAGE_LINES;
        int longest = all ? Integer.MAX_VALUE : LONGEST_LINE;
        List<String> lines = message.lines().filter(line -> !line.isBlank()).toList();
        boolean cut = lines.size() > limit;
        for (String line : lines.subList(0, Math.min(limit, lines.size()))) {
            out.println(INDENT + printable(Texts.cut(line.stripTrailing(), longest)));
            cut |= line.length() > longest;
        }
        if (lines.size() > limit)
            out.println(
                    INDENT + dim(lines.size() - limit == 1 ? "1 line more" : (lines.size() - limit) + " lines more"));
        for (String beside : BesideFailure.lines(failure, all ? Integer.MAX_VALUE : MAX_BESIDE))
            out.println(INDENT + printable(Texts.cut(beside, longest)));
        if (cut) out.println(INDENT + dim("the whole message: verbale failures --all"));
        String frame = run.ownFrames().nearest(failure.stack());
        if (!frame.isEmpty()) out.println(INDENT + dim("at " + frame));
    }

    /** Where a test stood that never ended. */
    private void lastStep(PrintWriter out, TestResult test) {
        if (!test.outcome().equals(Outcome.UNFINISHED)) return;
        String last = LastMoment.of(test.entries()).sentence();
        if (!last.isEmpty()) out.println(INDENT + printable(last));
    }

    /** The folder once, then the names in it: the whole paths would push everything else out of sight. */
    private void attachments(PrintWriter out, List<Entry> entries) {
        List<Entry.AttachmentEntry> attachments = new ArrayList<>();
        collect(entries, attachments);
        if (attachments.isEmpty()) return;
        String first = pathOf(attachments.get(0));
        String folder = first.substring(0, first.lastIndexOf('/') + 1);
        out.println(INDENT
                + dim("attachments in ")
                + printable(run.folder().resolve(folder).toString()));
        for (Entry.AttachmentEntry attachment : attachments) {
            String name = pathOf(attachment).replace(folder, "");
            out.println(INDENT + "  " + printable(name) + (attachment.file() == null ? dim(" (missing)") : ""));
        }
    }

    /** Below the run's folder: in a joined run the journals do not know where they came to lie. */
    private String pathOf(Entry.AttachmentEntry attachment) {
        if (attachment.file() == null) return attachment.stored().path();
        return new RunFolder(run.folder().toAbsolutePath().normalize()).nameInJournal(attachment.file());
    }

    private static void collect(List<Entry> entries, List<Entry.AttachmentEntry> attachments) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.AttachmentEntry attachment) attachments.add(attachment);
            else collect(Entry.inside(entry), attachments);
        }
    }

    private String outcome(Outcome outcome) {
        String padded = (outcome.text() + INDENT).substring(0, INDENT.length());
        Style colour = outcome.equals(Outcome.ERRORED) ? Style.fg_magenta : Style.fg_red;
        return styled(padded, colour, Style.bold);
    }

    private String strong(String text) {
        return terminal.strong(text);
    }

    private String dim(String text) {
        return terminal.dim(text);
    }

    private String styled(String text, Style... styles) {
        return terminal.styled(text, styles);
    }

    private static String printable(String text) {
        return TerminalText.printable(text);
    }
}
