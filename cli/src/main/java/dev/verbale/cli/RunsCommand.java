package dev.verbale.cli;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.RunSummary;
import dev.verbale.results.Counts;
import dev.verbale.results.DurationText;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.RunReader;
import dev.verbale.results.RunTags;
import dev.verbale.results.TestKeeper;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Lists runs. */
@Command(
        name = "runs",
        subcommands = {FollowCommand.class, QueryCommand.class, SweepCommand.class},
        description = "Lists the runs in a folder, the newest first.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale runs",
            "  verbale runs --tag nightly --limit 3 modules/shop/target/verbale",
            "  verbale runs --remembered --branch main   # those of the history"
        })
final class RunsCommand implements Callable<Integer> {

    @Parameters(arity = "0..1", paramLabel = "FOLDER", description = "What holds runs; left out, target/verbale")
    private @Nullable Path folder;

    @Option(
            names = "--limit",
            paramLabel = "N",
            defaultValue = "20",
            description = "How many at the most (${DEFAULT-VALUE})")
    private int limit;

    @Option(
            names = "--tag",
            paramLabel = "TAG",
            description = {"Only runs that have it (verbale.tags)", "Given twice, only those that have both."})
    private List<String> tags = List.of();

    @Option(names = "--remembered", description = "Those that are remembered, whose folders may be gone")
    private boolean isRemembered;

    @Option(names = "--branch", paramLabel = "NAME", description = "With --remembered: only runs of this branch")
    private @Nullable String branch;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (limit < 1) throw new ParameterException(spec.commandLine(), "--limit takes a number from 1, not " + limit);
        if (isRemembered) {
            remembered();
            return ExitCodes.DONE;
        }
        if (branch != null) throw new ParameterException(spec.commandLine(), "--branch is for --remembered");
        Path root = folder == null ? RunArgument.root() : folder;
        List<RunFolder> runs = new ArrayList<>(new ResultsRoot(root).runs());
        if (runs.isEmpty()) RunReader.find(root); // says what there is instead
        if (runs.isEmpty()) throw oneRun(root);
        Collections.reverse(runs);
        PrintWriter out = spec.commandLine().getOut();
        int shown = 0;
        for (RunFolder one : runs) {
            if (shown == limit) break;
            String line = line(one);
            if (line == null) continue;
            out.println(line);
            shown++;
        }
        if (tags.isEmpty() && runs.size() > limit) out.println("and " + (runs.size() - limit) + " older");
        if (shown == 0)
            spec.commandLine()
                    .getErr()
                    .println("No run in " + root + " has the tag " + String.join(" and ", tags) + ".");
        return ExitCodes.DONE;
    }

    private void remembered() throws IOException {
        if (folder != null || !tags.isEmpty())
            throw new ParameterException(
                    spec.commandLine(), "--remembered lists the history: it takes no folder, and no --tag");
        PrintWriter out = spec.commandLine().getOut();
        var text = new TerminalText(Ansi.AUTO);
        History known = history.readFilled(spec.commandLine().getErr());
        List<RunSummary> all =
                known.runs().stream().filter(HistoryOption.on(branch)).toList();
        if (all.isEmpty()) throw HistoryOption.noBranch(spec, known, branch);
        if (all.stream().anyMatch(RunSummary::isMadeUp)) out.println(text.dim(HistoryOption.MADE_UP));
        for (int i = all.size() - 1; i >= Math.max(0, all.size() - limit); i--) {
            RunSummary run = all.get(i);
            String how = run.isGood() ? text.good(run.words()) : text.bad(run.words());
            out.println(run.name() + "  " + TerminalText.printable(run.branch()) + "  " + run.tests() + " tests  "
                    + DurationText.of(run.duration()) + "  " + how);
        }
        if (all.size() > limit) out.println("and " + (all.size() - limit) + " older");
    }

    private static ResultsFormatException oneRun(Path root) {
        return new ResultsFormatException(
                root,
                "this is one run",
                "The folder around it holds runs",
                "Name that, or ask: verbale failures " + root);
    }

    /** Null where it is not asked for. What cannot be read may be what is asked for. */
    private @Nullable String line(RunFolder folder) {
        try {
            Run run = RunReader.read(folder.path(), TestKeeper.ENDS);
            List<String> its = RunTags.of(run.facts());
            if (!its.containsAll(tags)) return null;
            return folder.name() + "  " + pad(DurationText.of(run.duration()), 11) + "  " + counts(run.counts())
                    + lacking(run)
                    + (its.isEmpty() ? "" : "  " + TerminalText.printable(String.join(", ", its)));
        } catch (IOException unreadable) {
            return folder.name() + "  cannot be read: " + FailureMessages.reason(unreadable);
        } catch (RuntimeException odd) { // one run that nobody foresaw must not hide the others
            return folder.name() + "  cannot be read: " + odd;
        }
    }

    private static String counts(Counts counts) {
        var text = new StringBuilder(
                counts.all() == 0 ? "no tests" : pad(counts.all() == 1 ? "1 test" : counts.all() + " tests", 10));
        counts.byOutcome()
                .forEach((outcome, count) ->
                        text.append("  ").append(count).append(' ').append(outcome.text()));
        if (counts.flaky() > 0) text.append("  ").append(counts.flaky()).append(" of them flaky");
        if (counts.broken() > 0)
            text.append("  ").append(counts.broken()).append(counts.broken() == 1 ? " class broke" : " classes broke");
        return text.toString();
    }

    /** What the numbers do not say. */
    private static String lacking(Run run) {
        String part = RunPart.of(run.facts());
        return (run.incomplete().isNothing() ? "" : "  incomplete")
                + (part.isEmpty() ? "" : "  only " + TerminalText.printable(part));
    }

    private static String pad(String text, int width) {
        return " ".repeat(Math.max(0, width - text.length())) + text;
    }
}
