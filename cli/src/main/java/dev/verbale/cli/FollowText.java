package dev.verbale.cli;

import dev.verbale.results.DurationText;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.progress.RunProgress;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Help.Ansi;

/**
 * A run that is going, for a terminal: each failure once, as it comes; below them how far the run is and what is running, drawn over
 * what was there before. Where nobody draws, as in a file, only a line now and then says how far it is.
 */
final class FollowText {

    private static final int MAX_RUNNING = 8;
    private static final int BAR = 30;

    private static final long A_LINE_EVERY = Duration.ofSeconds(10).toNanos();

    private final PrintWriter out;
    private final TerminalText terminal;
    private final boolean isDrawn;
    private final Expectation expected;
    private final Set<String> shown = new HashSet<>();
    private List<String> drawn = List.of();
    private @Nullable RunProgress progress;
    private String sentence = "";
    private long lastLine = System.nanoTime() - A_LINE_EVERY;

    FollowText(PrintWriter out, Ansi ansi, Expectation expected) {
        this.out = out;
        this.terminal = new TerminalText(ansi);
        this.isDrawn = ansi.enabled();
        this.expected = expected;
    }

    /**
     * The run has grown. Its reasons are looked for once then, and not with each second.
     *
     * @param labels what the team says of failures, by the ids of the tests
     */
    void news(RunProgress now, Map<String, String> labels) {
        wipe();
        failures(now.ended(), labels);
        progress = now;
        sentence = now.sentence(FailureReason.of(now.ended()));
        out.flush();
    }

    /** @param silent how long nothing was written: what runs has run as much longer */
    void show(Duration silent) {
        if (progress == null) return;
        if (isDrawn) draw(lines(progress, silent));
        else if (System.nanoTime() - lastLine >= A_LINE_EVERY) {
            out.println(status(progress, silent));
            lastLine = System.nanoTime();
        }
        out.flush();
    }

    private void draw(List<String> lines) {
        if (lines.equals(drawn)) return;
        wipe();
        for (String line : lines) out.println(line);
        drawn = lines;
    }

    /** The run is over. */
    void end(Run run, Map<String, String> labels) {
        wipe();
        failures(run, labels);
        out.println(terminal.strong(Headline.of(run)));
        out.flush();
    }

    void page(Path index) {
        say("Page: " + index);
    }

    /** A line that stays. */
    void say(String line) {
        wipe();
        out.println(line);
        out.flush();
    }

    private void failures(Run run, Map<String, String> labels) {
        for (TestResult test : run.tests()) {
            if (!test.outcome().needsAttention() && !test.recovered()) continue;
            if (!shown.add(test.id() + " " + test.outcome())) continue;
            String where = test.path().isEmpty() ? "" : test.path().get(0) + " › ";
            if (test.recovered()) {
                out.println(terminal.good("flaky") + "  " + TerminalText.printable(where + test.name()) + "  "
                        + terminal.dim("passed on attempt " + test.attempt().number()));
                continue;
            }
            String again = test.attempt().number() == 1
                    ? ""
                    : terminal.dim("  attempt " + test.attempt().number());
            out.println(terminal.bad(test.outcome().text()) + "  " + TerminalText.printable(where)
                    + terminal.strong(test.name()) + again);
            String label = labels.get(test.id());
            if (label != null) out.println("        " + TerminalText.printable(label));
            if (test.failure() != null)
                out.println("        " + TerminalText.printable(FailureTitle.of(test.failure())));
        }
    }

    private List<String> lines(RunProgress progress, Duration silent) {
        List<String> lines = new ArrayList<>();
        lines.add(terminal.strong(terminal.cut(sentence, terminal.width() - 1)));
        lines.add(terminal.cut(bar(progress.share(expected)) + status(progress, silent), terminal.width() - 1));
        Run ended = progress.ended();
        Instant now = ended.started().plus(ended.duration()).plus(silent);
        for (TestResult test : progress.running()
                .subList(0, Math.min(MAX_RUNNING, progress.running().size()))) {
            String where = test.path().isEmpty() ? "" : test.path().get(0) + " › ";
            String since = seconds(Duration.between(test.started(), now));
            lines.add(terminal.dim("  "
                    + terminal.cut(
                            since + "  " + where + test.name() + "  in " + test.worker(), terminal.width() - 3)));
        }
        if (progress.running().size() > MAX_RUNNING)
            lines.add(terminal.dim("  and " + (progress.running().size() - MAX_RUNNING) + " more are running"));
        return lines;
    }

    /** Whole ones: what is drawn once a second has no use for others. */
    private static String seconds(Duration duration) {
        return duration.toSeconds() < 1 ? "0 s" : DurationText.of(duration.truncatedTo(ChronoUnit.SECONDS));
    }

    private String bar(double share) {
        if (expected.equals(Expectation.NONE)) return "";
        int full = (int) (share * BAR);
        return "█".repeat(full) + "░".repeat(BAR - full) + " ";
    }

    private String status(RunProgress progress, Duration silent) {
        Run ended = progress.ended();
        String tests = ended.counts().all() + (expected.tests() > 0 ? " of about " + expected.tests() : "") + " tests";
        String time = seconds(ended.duration().plus(silent))
                + (expected.duration().isZero() ? "" : " of about " + DurationText.of(expected.duration()));
        return tests + " after " + time + ", " + ended.counts().needingAttention() + " did not pass, "
                + progress.running().size() + (progress.running().size() == 1 ? " is running" : " are running");
    }

    /** Moves up to where the last drawing began, and clears from there. */
    private void wipe() {
        if (!drawn.isEmpty()) out.print("\033[" + drawn.size() + "A\033[J");
        drawn = List.of();
    }
}
