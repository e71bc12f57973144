package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.compare.FirstDifference;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.DurationText;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import dev.verbale.rules.TodayParts.Reason;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
        footer = {
            "  verbale compare   # with the newest complete run before",
            "  verbale compare --baseline branch:main"
        })
final class CompareCommand implements Callable<Integer> {

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
            description = "How many of each at the most (${DEFAULT-VALUE})")
    private int limit;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Option(
            names = "--test",
            paramLabel = "TEXT",
            description = {
                "Tests with TEXT in their id, step by step",
                "Beside what they did then: the first step that went otherwise, responses by JSON path, screenshots. The earlier run's folder has to be there."
            })
    private @Nullable String test;

    @Option(
            names = "--images",
            paramLabel = "FOLDER",
            description = {
                "With --test: where differing screenshots are put",
                "Images of what is different in screenshots are written there."
            })
    private @Nullable Path images;

    @Spec
    private CommandSpec spec;

    private final TerminalText text = new TerminalText(Ansi.AUTO);
    private final Map<String, FirstDifference> differences = new HashMap<>();

    @Override
    public Integer call() throws Exception {
        if (images != null && test == null)
            throw new ParameterException(spec.commandLine(), "--images is of use only beside --test");
        PrintWriter out = spec.commandLine().getOut();
        Run read = run.read();
        Today today = history.today(
                read,
                RunArgument.around(read),
                rules.read(),
                baseline.named(),
                spec.commandLine().getErr());
        Comparison comparison = today.comparison();
        if (comparison == null) {
            out.println("There is no earlier run to compare " + read.name()
                    + " with: no complete run of its branch, or of the"
                    + " branch that it left, that ran what it ran is in its folder or remembered in "
                    + history.folder().path() + ". Name one with --baseline.");
            return ExitCodes.DONE;
        }
        Path folder = RunArgument.around(read).resolve(comparison.before().run());
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
        if (isThere) remember(RunReader.read(folder), read);
        print(out, today, comparison);
        commits(comparison, read);
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

    private void commits(Comparison comparison, Run read) {
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
        print(
                read,
                "Commits since" + (commits.touching() == 0 ? "" : ", those in the failing tests' own classes first"),
                commits.all(),
                commit -> new Line(commit, ""));
    }

    private void print(PrintWriter out, Today today, Comparison comparison) {
        out.println(text.strong(comparison.sentence()));
        out.println(text.dim(comparison.after().run() + " beside "
                + TerminalText.printable(comparison.baseline().text())));
        if (comparison.isOfAPart())
            out.println(text.dim("Only a part of the suite was run: "
                    + TerminalText.printable(comparison.after().part())));
        ZoneId zone = ZoneId.systemDefault();
        Run read = today.run();
        for (Part part : TodayParts.of(today, LocalDate.now(zone), zone).parts())
            new PartText(out, text, read, limit).print(withDifferences(today, part));
        print(read, "Faster", comparison.faster(), CompareCommand::duration);
        print(read, "New tests", comparison.added(), test -> new Line(test.name(), ""));
        print(
                read,
                "New tests whose names differ from vanished ones in a number only; give them names that stay",
                comparison.renumbered(),
                test -> new Line(test.name(), ""));
        print(read, "Reasons that are gone", comparison.goneReasons(), reason -> new Line(reason.title(), ""));
    }

    private <T> void print(Run read, String title, List<T> all, Function<T, Line> line) {
        if (all.isEmpty()) return;
        List<Line> lines = all.stream().map(line).toList();
        new PartText(spec.commandLine().getOut(), text, read, limit).print(new Part(null, title, List.of(), lines));
    }

    private Part withDifferences(Today today, Part part) {
        return new Part(
                part.standing(),
                part.title(),
                part.reasons().stream()
                        .map(reason -> withDifference(today, part, reason))
                        .toList(),
                part.lines());
    }

    /** With what went otherwise than in the earlier run in the first of its tests of which that is known. */
    private Reason withDifference(Today today, Part part, Reason reason) {
        String difference = today.failures().stream()
                .filter(one -> one.standing() == part.standing() && one.reason().equals(reason.id()))
                .flatMap(one -> one.tests().stream())
                .map(test -> differences.get(test.key()))
                .filter(Objects::nonNull)
                .map(FirstDifference::sentence)
                .findFirst()
                .orElse(null);
        if (difference == null) return reason;
        List<String> about = new ArrayList<>(reason.about());
        about.add("first different: " + difference);
        return new Reason(
                reason.id(), reason.title(), about, reason.code(), reason.evidence(), reason.tests(), reason.first());
    }

    private static Line duration(Change change) {
        TestDigest before = change.before();
        return new Line(
                change.after().name(),
                DurationText.of(Duration.ofMillis(change.after().millis()))
                        + (before == null ? "" : ", before " + DurationText.of(Duration.ofMillis(before.millis()))));
    }
}
