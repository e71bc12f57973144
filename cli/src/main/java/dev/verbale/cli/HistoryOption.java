package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Problem;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.rules.Rules;
import dev.verbale.rules.Today;
import dev.verbale.rules.Triage;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Which history. */
final class HistoryOption {

    static final String MADE_UP = "Some of these runs are made up: nothing of them ever ran.";

    private static final int MAX_PROBLEMS = 5;

    @Option(
            names = "--history",
            paramLabel = "FOLDER",
            description = {
                "Where runs are remembered, not .verbale/history",
                "Left out: the hub that VERBALE_HUB names; else what VERBALE_HISTORY says, or .verbale/history."
            })
    private @Nullable Path folder;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    private @Nullable HistoryFolder asked;

    /** The one that somebody names; else the hub's, where the environment names a hub; else the project's own. */
    HistoryFolder folder() throws IOException {
        if (asked == null) asked = ask();
        return asked;
    }

    private HistoryFolder ask() throws IOException {
        Optional<TeamHub> hub = folder == null ? TeamHub.ofEnvironment() : Optional.empty();
        return hub.isPresent() ? hub.get().history(spec.commandLine().getErr()) : own();
    }

    /** Where runs are remembered here, whatever hub there is. */
    HistoryFolder own() {
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
        Path around =
                OpenArchives.outside(run.path()).toAbsolutePath().normalize().getParent();
        return new BaselineFinder(around == null ? Path.of("") : around, folder(), read(err));
    }

    /**
     * Where the suite of {@code run} stands.
     *
     * @param root the folder that holds the run and its kin
     * @param baseline what to compare with, as {@link BaselineFinder#find} takes it; null for the usual
     */
    Today today(Run run, Path root, Rules rules, @Nullable String baseline, PrintWriter err) throws IOException {
        History remembered = read(err);
        Comparison comparison = new BaselineFinder(root, folder(), remembered)
                .find(baseline, run)
                .map(before -> Comparison.of(before, RunDigest.of(run), remembered))
                .orElse(null);
        Triage triage = Triage.of(run, rules.triage(), LocalDate.now(ZoneId.systemDefault()));
        return Today.of(run, triage, rules, comparison, remembered);
    }

    /** The first of them. */
    void list(List<Problem> problems, PrintWriter err) throws IOException {
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

    private ResultsFormatException nothing() throws IOException {
        return new ResultsFormatException(
                folder().path(),
                "no run is remembered there",
                "Runs are remembered by the Maven plugin, and by verbale history add",
                "Run that on a run's folder, or name another folder with --history");
    }

    /** Of a branch that nothing is remembered of. */
    static ParameterException noBranch(CommandSpec spec, History known, @Nullable String branch) {
        return new ParameterException(
                spec.commandLine(),
                "no run of branch '" + branch + "' is remembered. Known are "
                        + known.runs().stream()
                                .map(RunSummary::branch)
                                .distinct()
                                .toList());
    }

    /** The runs of {@code branch}, or all where it is null. */
    static Predicate<RunSummary> on(@Nullable String branch) {
        return run -> branch == null || run.branch().equals(branch);
    }
}
