package dev.verbale.maven;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.Triage;
import dev.verbale.rules.TriageRule;
import dev.verbale.rules.Verdict;
import dev.verbale.rules.yaml.YamlFormatException;
import dev.verbale.sending.HubProject;
import dev.verbale.sending.SendOptions;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugin.MojoExecutionException;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.jspecify.annotations.Nullable;

/**
 * Fails the build where a test of its run needs attention: it failed, broke, or did not come to its end. For builds that let tests
 * fail at first, by {@code -Dmaven.test.failure.ignore}, so that all modules are tested. Looks once, in the last module.
 *
 * @since 0.2.0
 */
@Mojo(name = "gate", defaultPhase = LifecyclePhase.VERIFY, threadSafe = true)
public final class GateMojo extends AbstractMojo {

    private static final int MAX_PROBLEMS = 10;

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    /** Lets everything pass. */
    @Parameter(property = "verbale.gate.skip", defaultValue = "false")
    private boolean skip;

    /** Whether a build passes in which no test was recorded. */
    @Parameter(property = "verbale.gate.allow-no-tests", defaultValue = "false")
    private boolean allowNoTests;

    /** The file of rules; see {@code docs/rules.md}. Left out: {@code verbale-rules.yaml} beside the outermost POM, where there is one. */
    @Parameter(property = "verbale.rules")
    private @Nullable File rules;

    /** Where runs are remembered, or {@code off}. Left out: {@code .verbale/history} beside the outermost POM. */
    @Parameter(property = "verbale.history")
    private @Nullable String history;

    /**
     * What the rules compare with: {@code branch:NAME}, {@code last-good}, {@code previous}, or a run by its name. Left out: the newest
     * complete run of the branch that this one is to be merged into, or else of the same branch, or else of the branch that it left.
     */
    @Parameter(property = "verbale.gate.baseline")
    private @Nullable String baseline;

    /** As Maven makes it. */
    @SuppressWarnings("NullAway.Init")
    public GateMojo() {}

    @Override
    public void execute() throws MojoExecutionException, MojoFailureException {
        boolean isLast = session.getCurrentProject()
                .equals(session.getProjects().get(session.getProjects().size() - 1));
        if (skip || !isLast) return;
        Run run;
        try {
            Optional<RunFolder> found = BuildRun.find(session);
            if (found.isEmpty() && allowNoTests) return;
            if (found.isEmpty())
                throw new MojoFailureException("No test was recorded in " + BuildRun.root(session)
                        + ". Set allowNoTests where that is as it should be.");
            run = RunReader.read(found.get().path());
        } catch (IOException unreadable) {
            throw new MojoExecutionException("The run could not be read: " + unreadable, unreadable);
        }
        Verdict verdict;
        try {
            verdict = verdict(withoutEndOfThisJvm(run));
        } catch (YamlFormatException wrong) {
            throw new MojoFailureException(wrong.getMessage(), wrong);
        } catch (IOException unreadable) {
            throw new MojoExecutionException("The run could not be judged: " + unreadable.getMessage(), unreadable);
        }
        for (Problem problem :
                run.problems().subList(0, Math.min(MAX_PROBLEMS, run.problems().size())))
            getLog().warn("Verbale: " + problem.sentence());
        verdict.exceptions().forEach(exception -> getLog().info("Verbale: " + exception));
        if (!verdict.passes())
            throw new MojoFailureException("The gate is closed. " + String.join(" ", verdict.reasons()) + " "
                    + Headline.of(run) + " The run: " + run.folder());
        getLog().info("Verbale: the gate is open. " + Headline.of(run));
    }

    /** Where tests run in the build itself, its own journal is closed when the build is over. */
    private static Run withoutEndOfThisJvm(Run run) {
        long own = ProcessHandle.current().pid();
        return run.withWorkers(run.workers().stream()
                .map(worker -> worker.pid() == own ? worker.asEnded() : worker)
                .toList());
    }

    /** What people know on the hub, where one is set: it may be what closes the gate. */
    private List<TriageRule> knownOnHub() throws IOException, YamlFormatException {
        Optional<SendOptions> hub;
        try {
            hub = BuildSender.options(session);
        } catch (IllegalArgumentException wrong) {
            throw new IOException(wrong.getMessage(), wrong);
        }
        return hub.isEmpty()
                ? List.of()
                : RulesReader.read(Path.of("the rules of the hub"), new HubProject(hub.get()).rules())
                        .triage();
    }

    private Verdict verdict(Run run) throws IOException, YamlFormatException {
        Path usual = BuildRun.rootOfAllModules(session).resolve(Rules.DEFAULT);
        Rules read = rules != null
                ? RulesReader.read(rules.toPath())
                : Files.exists(usual) ? RulesReader.read(usual) : Rules.NONE;
        read = read.under(knownOnHub());
        Triage triage = Triage.of(run, read.triage(), LocalDate.now(ZoneId.systemDefault()));
        Optional<HistoryFolder> remembered = BuildRun.history(session, history);
        if (!read.gate().needsBaseline() || remembered.isEmpty()) return Verdict.of(read.gate(), run, triage, null);
        History nights = remembered.get().read(problem -> getLog().warn("Verbale: " + problem.sentence()));
        Comparison comparison = new BaselineFinder(BuildRun.root(session), remembered.get(), nights)
                .find(baseline, run)
                .map(before -> Comparison.of(before, RunDigest.of(run), nights))
                .orElse(null);
        return Verdict.of(read.gate(), run, triage, comparison);
    }
}
