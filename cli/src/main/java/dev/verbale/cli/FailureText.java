package dev.verbale.cli;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.results.Cause;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.DurationText;
import dev.verbale.results.Entry;
import dev.verbale.results.Headline;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Help.Ansi.Style;

/** The failures of a run for a terminal. */
final class FailureText {

    private static final String INDENT = "           "; // as wide as the longest outcome and the gap behind it
    private static final int MESSAGE_LINES = 6;

    private final Run run;
    private final Ansi ansi;

    FailureText(Run run, Ansi ansi) {
        this.run = run;
        this.ansi = ansi;
    }

    void print(PrintWriter out) {
        out.println(strong(Headline.of(run)));
        for (TestResult test : run.needingAttention()) {
            out.println();
            out.println(outcome(test.outcome()) + strong(test.name()) + "  " + dim(DurationText.of(test.took())));
            out.println(INDENT + dim(String.join(" › ", test.path())));
            failure(out, test.failure());
            lastStep(out, test);
            papers(out, test.entries());
        }
        for (ContainerResult container : run.brokenContainers()) {
            out.println();
            out.println(outcome(container.outcome()) + strong(container.name()) + "  "
                    + dim(container.notRun() + " of its tests did not run"));
            failure(out, container.failure());
            papers(out, container.entries());
        }
        out.println();
        out.println(dim("Minutes in " + run.folder() + "; for the page: verbale page " + run.folder()));
    }

    private void failure(PrintWriter out, @Nullable Failure failure) {
        if (failure == null) return;
        String message = failure.message() == null ? failure.type() : failure.message();
        List<String> lines = message.lines().filter(line -> !line.isBlank()).toList();
        lines.stream().limit(MESSAGE_LINES).forEach(line -> out.println(INDENT + printable(line.stripTrailing())));
        if (lines.size() > MESSAGE_LINES) out.println(INDENT + dim((lines.size() - MESSAGE_LINES) + " lines more"));
        String place = Cause.place(failure);
        if (!place.isEmpty()) out.println(INDENT + dim("at " + place));
    }

    /** Where a test stood that never ended. */
    private void lastStep(PrintWriter out, TestResult test) {
        if (test.outcome() != Outcome.UNFINISHED) return;
        List<String> open = new ArrayList<>();
        List<Entry> entries = test.entries();
        while (true) {
            Entry.StepEntry last = null;
            for (Entry entry : entries)
                if (entry instanceof Entry.StepEntry step && step.outcome() == Outcome.UNFINISHED) last = step;
            if (last == null) break;
            open.add(last.name());
            entries = last.entries();
        }
        if (!open.isEmpty()) out.println(INDENT + "last in: " + printable(String.join(" › ", open)));
    }

    /** The folder once, then the names in it: the whole paths would push everything else out of sight. */
    private void papers(PrintWriter out, List<Entry> entries) {
        List<Entry.PaperEntry> papers = new ArrayList<>();
        collect(entries, papers);
        if (papers.isEmpty()) return;
        String first = papers.get(0).nameInJournal();
        String folder = first.substring(0, first.lastIndexOf('/') + 1);
        out.println(INDENT
                + dim("papers in ")
                + printable(run.folder().resolve(folder).toString()));
        for (Entry.PaperEntry paper : papers) {
            String name = paper.nameInJournal().replace(folder, "");
            out.println(INDENT + "  " + printable(name) + (paper.file() == null ? dim(" (missing)") : ""));
        }
    }

    private static void collect(List<Entry> entries, List<Entry.PaperEntry> papers) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.PaperEntry paper) papers.add(paper);
            else if (entry instanceof Entry.StepEntry step) collect(step.entries(), papers);
        }
    }

    private String outcome(Outcome outcome) {
        String padded = (outcome.word() + INDENT).substring(0, INDENT.length());
        Style colour = outcome == Outcome.ERRORED ? Style.fg_magenta : Style.fg_red;
        return styled(padded, colour, Style.bold);
    }

    private String strong(String text) {
        return styled(text, Style.bold);
    }

    private String dim(String text) {
        return styled(text, Style.faint);
    }

    /** Not picocli's markup: a test's name may hold what that would read as markup. */
    private String styled(String text, Style... styles) {
        String clean = printable(text);
        // Not Style.off: its code for the end of bold is, to many terminals, the beginning of a double underline.
        return ansi.enabled() ? Style.on(styles) + clean + Style.reset.on() : clean;
    }

    /** A recorded text must not move the cursor or set a title. */
    private static String printable(String text) {
        return text.replaceAll("[\\p{Cntrl}&&[^\\n\\t]]", "\uFFFD");
    }
}
