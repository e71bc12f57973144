package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.compare.Baseline;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.compare.FirstDifference;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.DurationText;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.Callable;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Two runs beside each other. */
@Command(
        name = "compare",
        description =
                "Shows what is different from an earlier run: new failures, fixed, slower, new and vanished tests.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale compare                        with the newest complete run before",
            "  verbale compare --baseline branch:main",
            "  verbale compare --baseline 2026-11-23_221500_a07c",
        })
final class CompareCommand implements Callable<Integer> {

    private static final int LONGEST = 140;
    private static final int MAX_OF_A_REASON = 3;

    @Mixin
    private final RunArgument run = new RunArgument();

    @Mixin
    private final BaselineOption baseline = new BaselineOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Option(
            names = "--limit",
            paramLabel = "N",
            defaultValue = "20",
            description = "How many of each at the most. Default: ${DEFAULT-VALUE}")
    private int limit;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Option(
            names = "--test",
            paramLabel = "TEXT",
            description =
                    "Shows tests whose id holds TEXT, beside what they did then: the first step that went otherwise, responses "
                            + "by JSON path, screenshots. The earlier run's folder has to be there.")
    private @Nullable String test;

    @Option(
            names = "--images",
            paramLabel = "FOLDER",
            description = "Beside --test: where images of what is different in screenshots are written.")
    private @Nullable Path images;

    @Spec
    private CommandSpec spec;

    private final TerminalText text = new TerminalText(Ansi.AUTO);
    private final Map<String, String> labels = new HashMap<>();
    private final Map<String, FirstDifference> differences = new HashMap<>();

    @Override
    public Integer call() throws Exception {
        if (images != null && test == null)
            throw new ParameterException(spec.commandLine(), "--images is of use only beside --test");
        PrintWriter out = spec.commandLine().getOut();
        Run read = run.read();
        History remembered = history.read(spec.commandLine().getErr());
        Baseline before = baseline.find(read, run.rootOf(read), history.folder(), remembered)
                .orElse(null);
        if (before == null) {
            out.println("There is no earlier run to compare " + read.name()
                    + " with: no complete run of its branch, or of the"
                    + " branch that it left, that ran what it ran is in its folder or remembered in "
                    + history.folder().path() + ". Name one with --baseline.");
            return ExitCodes.DONE;
        }
        Comparison comparison = Comparison.of(before, RunDigest.of(read), remembered);
        Path folder = run.rootOf(read).resolve(before.run().run());
        boolean isThere = new RunFolder(folder).exists();
        if (test != null) {
            if (!isThere)
                throw new ResultsFormatException(
                        folder,
                        "the earlier run is not there any more",
                        "Only its digest is remembered, which has no exchanges and no screenshots",
                        "Name a run whose folder is there, with --baseline");
            return single(RunReader.read(folder), read, test);
        }
        Map<String, String> byId = rules.labels(read);
        for (TestResult one : read.needingAttention())
            if (byId.containsKey(one.id())) labels.put(one.key(), byId.get(one.id()));
        if (isThere) remember(RunReader.read(folder), read);
        print(out, comparison);
        commits(out, comparison, read);
        return ExitCodes.DONE;
    }

    private int single(Run before, Run after, String wanted) throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        out.println(text.dim(after.name() + " beside " + before.name()));
        int shown;
        try {
            shown = new TestDifferences(out, text, images).print(before, after, wanted);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the comparison was not finished", failed);
        }
        if (shown == 0)
            throw new ParameterException(spec.commandLine(), "No test of both runs has '" + wanted + "' in its id.");
        return ExitCodes.DONE;
    }

    /** Where each test first went otherwise, by its key; of tests whose earlier run is still there. */
    private void remember(Run before, Run after) {
        Map<String, TestResult> earlier = new HashMap<>();
        for (TestResult test : before.tests()) if (!test.superseded()) earlier.put(test.key(), test);
        for (TestResult test : after.needingAttention()) {
            TestResult then = earlier.get(test.key());
            if (then != null) FirstDifference.of(then, test).ifPresent(one -> differences.put(test.key(), one));
        }
    }

    private void commits(PrintWriter out, Comparison comparison, Run read) {
        Set<String> classes = new TreeSet<>();
        Set<String> failing = new TreeSet<>();
        for (Change change : comparison.newFailures())
            failing.add(change.after().key());
        for (TestResult test : read.tests())
            if (test.className() != null && failing.contains(test.key())) classes.add(test.className());
        Commits commits = Commits.between(
                Path.of("").toAbsolutePath(),
                comparison.before().commit(),
                comparison.after().commit(),
                classes);
        String title =
                "Commits since" + (commits.touching() == 0 ? "" : ", those in the failing tests' own classes first");
        section(out, title, commits.all(), TerminalText::printable);
    }

    private void print(PrintWriter out, Comparison comparison) {
        out.println(text.strong(comparison.sentence()));
        out.println(text.dim(comparison.after().run() + " beside "
                + TerminalText.printable(comparison.baseline().text())));
        if (comparison.isOfAPart())
            out.println(text.dim("Only a part of the suite was run: "
                    + TerminalText.printable(comparison.after().part())));
        section(out, "New failures", comparison.newOfSteady(), change -> failure(comparison, change));
        section(
                out,
                "New failures of tests that are flaky",
                comparison.newOfFlaky(),
                change -> failure(comparison, change)
                        + text.dim("\n    " + change.flakiness().sentence() + " anyway"));
        section(
                out,
                "New failures, many at once: the run was not itself",
                byReason(comparison.newTogether()),
                changes -> together(comparison, changes));
        section(out, "Newly broken classes", comparison.newlyBroken(), TerminalText::printable);
        section(out, "Fixed", comparison.fixed(), change -> name(change.after()));
        section(
                out,
                "Still failing",
                comparison.stillFailing(),
                change -> name(change.after())
                        + label(change)
                        + (change.hasOtherReason()
                                ? text.dim("\n    for another reason: "
                                        + title(comparison, change.after().reason()))
                                : ""));
        section(out, "Slower", comparison.slower(), CompareCommand::duration);
        section(out, "Faster", comparison.faster(), CompareCommand::duration);
        section(
                out,
                "Renamed",
                comparison.renamed(),
                change -> name(change.after())
                        + (change.before() == null ? "" : text.dim(", was " + name(change.before()))));
        section(out, "New tests", comparison.added(), CompareCommand::name);
        section(out, missing(comparison), comparison.vanished(), CompareCommand::name);
        section(
                out,
                "New tests whose names differ from vanished ones in a number only; give them names that stay",
                comparison.renumbered(),
                CompareCommand::name);
        section(out, "Reasons that are gone", comparison.goneReasons(), CompareCommand::title);
    }

    private static String missing(Comparison comparison) {
        if (!comparison.after().isComplete()) return "Tests that the incomplete run does not have";
        return comparison.isOfAPart() ? "Tests that were not asked for" : "Vanished tests";
    }

    private <T> void section(PrintWriter out, String title, List<T> all, Function<T, String> line) {
        if (all.isEmpty()) return;
        out.println();
        out.println(text.strong(title));
        for (T one : all.subList(0, Math.min(limit, all.size()))) out.println("  " + line.apply(one));
        if (all.size() > limit) out.println(text.dim("  and " + (all.size() - limit) + " more"));
    }

    private String failure(Comparison comparison, Change change) {
        String why = title(comparison, change.after().reason());
        FirstDifference difference = differences.get(change.after().key());
        return name(change.after())
                + (change.before() == null ? text.dim(" (a new test)") : "")
                + label(change)
                + (why.isEmpty() ? "" : text.dim("\n    " + why))
                + (difference == null
                        ? ""
                        : "\n    first different: "
                                + TerminalText.printable(Texts.cut(difference.sentence(), LONGEST)));
    }

    /** Those with most tests first. */
    private static List<List<Change>> byReason(List<Change> changes) {
        Map<String, List<Change>> groups = new LinkedHashMap<>();
        for (Change change : changes)
            groups.computeIfAbsent(String.valueOf(change.after().reason()), reason -> new ArrayList<>())
                    .add(change);
        return groups.values().stream()
                .sorted(Comparator.comparingInt(group -> -group.size()))
                .toList();
    }

    private String together(Comparison comparison, List<Change> changes) {
        String why = title(comparison, changes.get(0).after().reason());
        var lines = new StringBuilder(
                changes.size() + (changes.size() == 1 ? " test: " : " tests: ") + TerminalText.printable(why));
        changes.stream().map(this::label).distinct().forEach(lines::append);
        for (Change change : changes.subList(0, Math.min(MAX_OF_A_REASON, changes.size())))
            lines.append("\n    ").append(name(change.after()));
        if (changes.size() > MAX_OF_A_REASON)
            lines.append(text.dim("\n    and " + (changes.size() - MAX_OF_A_REASON) + " more"));
        return lines.toString();
    }

    /** What the team says of it, on a line of its own. */
    private String label(Change change) {
        String label = labels.get(change.after().key());
        return label == null ? "" : "\n    " + TerminalText.printable(label);
    }

    private static String title(Comparison comparison, @org.jspecify.annotations.Nullable String reason) {
        return Texts.cut(comparison.titleOf(reason), LONGEST);
    }

    private static String title(ReasonDigest reason) {
        return TerminalText.printable(Texts.cut(reason.title(), LONGEST));
    }

    private static String name(TestDigest test) {
        return TerminalText.printable(Texts.cut(test.name(), LONGEST));
    }

    private static String duration(Change change) {
        TestDigest before = change.before();
        return name(change.after()) + ": "
                + DurationText.of(Duration.ofMillis(change.after().millis()))
                + (before == null ? "" : ", before " + DurationText.of(Duration.ofMillis(before.millis())));
    }
}
