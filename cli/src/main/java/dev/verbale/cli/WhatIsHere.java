package dev.verbale.cli;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.FileVisitOption;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import picocli.CommandLine.Help.Ansi;

/** What somebody meets who types the name of the command alone: the newest run, how it went, and what to type next. */
final class WhatIsHere {

    /** Modules of modules; deeper ones are named by who works there. */
    private static final int DEEPEST = 3;

    private WhatIsHere() {}

    static void print(PrintWriter out) throws IOException {
        var text = new TerminalText(Ansi.AUTO);
        List<RunFolder> newest = newest();
        if (newest.isEmpty()) {
            out.println("There is no run in " + RunArgument.root() + ", and none in a module's.");
            next(out, text, "verbale failures FOLDER", "a run, or what holds runs, elsewhere");
            next(out, text, "verbale import target/surefire-reports --output target/verbale/first", "");
            next(out, text, "verbale help", "all that there is");
            return;
        }
        RunFolder folder = newest.get(0);
        Run run = RunReader.read(folder.path(), TestKeeper.FAILURES);
        boolean isGood = run.problems().isEmpty()
                && RunSummary.of(RunDigest.of(run, List.of())).isGood();
        out.println(TerminalText.printable(folder.path().toString()));
        for (String line : text.wrapped(Headline.of(run), text.width(), 2))
            out.println(isGood ? text.good(line) : text.bad(line));
        if (newest.size() > 1) out.println(text.dim("Runs are in " + newest.size() + " folders; this is the newest."));
        String named = newest.size() > 1 || !folder.path().startsWith(RunArgument.root()) ? " " + folder.path() : "";
        if (!isGood) {
            next(out, text, "verbale failures" + named, "what failed, and why");
            next(out, text, "verbale rerun" + named, "how to run it again");
        } else next(out, text, "verbale compare" + named, "what is different from before");
        next(out, text, "verbale page" + named, "its page");
        next(out, text, "verbale help", "all that there is");
    }

    private static void next(PrintWriter out, TerminalText text, String command, String what) {
        String padded = String.format("%-18s", TerminalText.printable(command));
        out.println("  " + text.strong(padded) + (what.isEmpty() ? "" : "  " + text.dim(what)));
    }

    /** Of here, and of each module, the newest first. */
    private static List<RunFolder> newest() throws IOException {
        List<RunFolder> found = new ArrayList<>();
        for (Path root : roots()) {
            try {
                found.add(RunReader.find(root));
            } catch (ResultsFormatException none) {
                // a folder without a run
            }
        }
        found.sort(Comparator.comparing(RunFolder::name).reversed());
        return found;
    }

    private static List<Path> roots() throws IOException {
        if (Files.isDirectory(RunArgument.root())) return List.of(RunArgument.root());
        Path usual = Path.of(ResultsRoot.DEFAULT);
        try (Stream<Path> all = Files.find(
                Path.of(""),
                DEEPEST + usual.getNameCount(),
                (path, of) -> of.isDirectory() && path.endsWith(usual),
                new FileVisitOption[0])) {
            return all.sorted().toList();
        } catch (java.io.UncheckedIOException unreadable) {
            return List.of();
        }
    }
}
