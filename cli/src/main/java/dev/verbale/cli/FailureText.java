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
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Help.Ansi.Style;

/** Each failure of a run for a terminal, with its whole message and its attachments. */
final class FailureText {

    private static final String INDENT = "           "; // as wide as the longest outcome and the gap behind it

    private final Run run;
    private final Map<String, String> labels;
    private final TerminalText terminal;

    /**
     * @param labels what the team says of tests, by their ids
     */
    FailureText(Run run, Map<String, String> labels, TerminalText terminal) {
        this.run = run;
        this.labels = labels;
        this.terminal = terminal;
    }

    void print(PrintWriter out) {
        List<FailureReason> reasons = FailureReason.of(run);
        out.println(strong(Headline.of(run, reasons)));
        List<TestResult> tests = run.needingAttention();
        for (TestResult test : tests) test(out, test);
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
        Path recorded = OpenArchives.outside(run.folder());
        out.println(dim("Recorded in " + recorded + "; for the page: verbale page " + recorded));
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

    private void failure(PrintWriter out, @Nullable Failure failure) {
        if (failure == null) return;
        String message = failure.message() == null ? failure.type() : failure.message();
        message.lines()
                .filter(line -> !line.isBlank())
                .forEach(line -> out.println(INDENT + printable(line.stripTrailing())));
        for (String beside : BesideFailure.lines(failure, Integer.MAX_VALUE)) out.println(INDENT + printable(beside));
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
                + printable(OpenArchives.outside(run.folder()).resolve(folder).toString()));
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
