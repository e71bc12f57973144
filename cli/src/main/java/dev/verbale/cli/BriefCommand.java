package dev.verbale.cli;

import dev.verbale.history.compare.FirstDifference;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.TestResult;
import dev.verbale.results.brief.BriefOptions;
import dev.verbale.results.brief.FailureBrief;
import dev.verbale.results.reason.FailureReason;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Prints failures as text for an issue or an assistant. */
@Command(
        name = "brief",
        description = {
            "Prints a failure as text for an issue, a message or an assistant, as masked as the run is.",
            "What failed, what the test did until then, what browser and service said, who else has it."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale failures brief 3f09a1c2   # of the reason with this id",
            "  verbale failures brief --test SeedsPageTest --sources ."
        })
final class BriefCommand implements Callable<Integer> {

    private static final int SMALLEST = 500;

    private static final Pattern REASON = Pattern.compile("[0-9a-f]{4,12}");

    @Parameters(
            arity = "0..2",
            paramLabel = "ID|RUN",
            description = {"A reason, by the beginning of its id; a run", "Left out: the newest run."})
    private List<String> words = new ArrayList<>();

    @Option(
            names = "--test",
            paramLabel = "TEXT",
            description = {
                "Tests that did not pass with TEXT in their id",
                "Left out: the first of the most frequent reason."
            })
    private @Nullable String test;

    @Option(
            names = "--baseline",
            paramLabel = "RUN",
            description = {
                "A run in which the tests passed",
                "Such as the last good one: an element that is not found is looked for by what it was then."
            })
    private @Nullable Path baseline;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Option(
            names = "--size",
            paramLabel = "CHARACTERS",
            defaultValue = "12000",
            description = {"How long each may be (${DEFAULT-VALUE})", "What is least worth is left out first."})
    private int size;

    @Option(
            names = "--limit",
            paramLabel = "NUMBER",
            defaultValue = "5",
            description = "How many at the most (${DEFAULT-VALUE})")
    private int limit;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (size < SMALLEST || limit < 1)
            throw new ParameterException(
                    spec.commandLine(),
                    size < SMALLEST
                            ? "--size " + size + " holds no brief; give it " + SMALLEST + " or more"
                            : "--limit takes 1 or more");
        Run read = RunReader.read(path(), TestKeeper.failuresAndLaterAttempts());
        PrintWriter out = spec.commandLine().getOut();
        List<FailureReason> reasons = FailureReason.of(read);
        String reason = reason();
        List<TestResult> wanted = reason == null ? wanted(read, reasons) : ofReason(read, reason);
        if (wanted.isEmpty()) {
            out.println("Every test of " + read.name() + " passed or was not run.");
            return ExitCodes.DONE;
        }
        var options = new BriefOptions(size, true, sources.code(spec), good());
        Map<String, FailureReason> reasonOf = FailureReason.byTest(reasons);
        FailureReason.byTest(FailureReason.ofFlaky(read)).forEach(reasonOf::putIfAbsent);
        Map<String, String> labels = rules.labels(read);
        for (TestResult one : wanted.subList(0, Math.min(limit, wanted.size())))
            out.println(TerminalText.printable(FailureBrief.of(
                            read,
                            one,
                            reasonOf.get(one.id()),
                            options.withLabel(labels.get(one.id())).withDifference(difference(read, one)))
                    .text()));
        if (wanted.size() > limit)
            spec.commandLine()
                    .getErr()
                    .println("verbale: " + (wanted.size() - limit) + " more have it in their id; --limit shows them");
        return ExitCodes.DONE;
    }

    /** From a later attempt that passed; null where there is none. */
    private static @Nullable String difference(Run read, TestResult failed) {
        for (TestResult passed : read.flaky())
            if (failed.superseded() && passed.key().equals(failed.key()))
                return FirstDifference.ofAttempts(failed, passed).orElse(null);
        return null;
    }

    private Map<String, TestResult> good() throws IOException {
        return baseline == null ? Map.of() : BriefOptions.passed(RunReader.read(RunArgument.found(baseline)));
    }

    /** The word that is no run; null where there is none. */
    private @Nullable String reason() {
        List<String> reasons = words.stream().filter(BriefCommand::isReason).toList();
        if (reasons.size() > 1 || words.size() - reasons.size() > 1)
            throw new ParameterException(spec.commandLine(), "Name one reason and one run at the most, not " + words);
        if (!reasons.isEmpty() && test != null)
            throw new ParameterException(spec.commandLine(), "Name a reason, or tests with --test: one of the two");
        return reasons.isEmpty() ? null : reasons.get(0);
    }

    private Path path() {
        return words.stream()
                .filter(word -> !isReason(word))
                .findFirst()
                .map(word -> RunArgument.found(Path.of(word)))
                .orElseGet(RunArgument::root);
    }

    private static boolean isReason(String word) {
        return REASON.matcher(word).matches() && !Files.exists(RunArgument.found(Path.of(word)));
    }

    /** The first of its tests; of flaky ones the attempt that failed. */
    private List<TestResult> ofReason(Run read, String id) {
        List<FailureReason> all = new ArrayList<>(FailureReason.of(read));
        all.addAll(FailureReason.ofFlaky(read));
        List<FailureReason> named =
                all.stream().filter(reason -> reason.id().startsWith(id)).toList();
        if (named.isEmpty())
            throw new ParameterException(
                    spec.commandLine(),
                    "No failure of " + read.name() + " has the reason '" + id + "'. verbale failures lists them.");
        FailureReason first = named.get(0);
        if (first.tests().isEmpty())
            throw new ParameterException(
                    spec.commandLine(),
                    "Of '" + id
                            + "' only classes are known, and no test. verbale failures --all says what they threw.");
        return first.tests().subList(0, 1);
    }

    private List<TestResult> wanted(Run read, List<FailureReason> reasons) {
        List<TestResult> failing = read.needingAttention();
        if (test == null) {
            return reasons.isEmpty() || reasons.get(0).tests().isEmpty()
                    ? failing.subList(0, Math.min(1, failing.size()))
                    : reasons.get(0).tests().subList(0, 1);
        }
        List<TestResult> named =
                failing.stream().filter(one -> one.id().contains(test)).toList();
        if (named.isEmpty())
            throw new ParameterException(
                    spec.commandLine(),
                    "No test of " + read.name() + " that did not pass has '" + test + "' in its id.");
        return named;
    }
}
