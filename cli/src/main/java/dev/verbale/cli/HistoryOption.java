package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.results.Problem;
import dev.verbale.results.ResultsFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which history. */
final class HistoryOption {

    private static final int MAX_PROBLEMS = 5;

    @Option(
            names = "--history",
            paramLabel = "FOLDER",
            description = {
                "Where runs are remembered. Left out: what",
                "VERBALE_HISTORY says, or " + HistoryFolder.DEFAULT + "."
            })
    private @Nullable Path folder;

    HistoryFolder folder() {
        if (folder != null) return new HistoryFolder(folder);
        String set = System.getenv("VERBALE_HISTORY");
        return new HistoryFolder(Path.of(set == null || set.isBlank() ? HistoryFolder.DEFAULT : set));
    }

    /** All of it, which may be nothing; what cannot be read is said on {@code err}. */
    History read(PrintWriter err) throws IOException {
        List<Problem> problems = new ArrayList<>();
        History history = folder().read(problems::add);
        list(problems, err);
        return history;
    }

    /** The runs before the one in {@code run}: those that are remembered, and those whose folders lie beside it. */
    BaselineFinder earlier(RunFolder run, PrintWriter err) throws IOException {
        Path around = run.path().toAbsolutePath().normalize().getParent();
        return new BaselineFinder(around == null ? run.path() : around, folder(), read(err));
    }

    /** The first of them. */
    void list(List<Problem> problems, PrintWriter err) {
        for (Problem problem : problems.subList(0, Math.min(MAX_PROBLEMS, problems.size())))
            err.println("verbale: " + folder().path().resolve(problem.sentence()));
        if (problems.size() > MAX_PROBLEMS)
            err.println("verbale: and " + (problems.size() - MAX_PROBLEMS) + " more such files and lines");
    }

    /** Reads the history; one that remembers nothing is refused. */
    History readFilled(PrintWriter err) throws IOException {
        History history = read(err);
        if (history.runs().isEmpty()) throw nothing();
        return history;
    }

    /** Refuses one without a file. */
    void refuseEmpty() throws IOException {
        if (folder().files().isEmpty()) throw nothing();
    }

    private ResultsFormatException nothing() {
        return new ResultsFormatException(
                folder().path(),
                "no run is remembered there",
                "Runs are remembered by the Maven plugin, and by verbale history add",
                "Run that on a run's folder, or name another folder with --history");
    }

    /** The runs of {@code branch}, or all where it is null. */
    static Predicate<RunSummary> on(@Nullable String branch) {
        return run -> branch == null || run.branch().equals(branch);
    }
}
