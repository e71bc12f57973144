package dev.verbale.cli;

import dev.verbale.history.Appearance;
import dev.verbale.history.Disturbance;
import dev.verbale.history.DurationStep;
import dev.verbale.history.FailureTrait;
import dev.verbale.history.Flakiness;
import dev.verbale.history.History;
import dev.verbale.history.ReasonHistory;
import dev.verbale.history.RunSummary;
import dev.verbale.history.SlowerStep;
import dev.verbale.history.TestHistory;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.DurationText;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.Texts;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
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

/** Many runs. */
@Command(
        name = "history",
        description = "Remembers runs, and tells what many of them have in common.",
        synopsisSubcommandLabel = "COMMAND",
        mixinStandardHelpOptions = true,
        subcommands = {
            HistoryCommand.Add.class,
            HistoryCommand.OfTest.class,
            HistoryCommand.Flaky.class,
            HistoryCommand.Slower.class,
            HistoryCommand.Reasons.class,
            HistoryIndexCommand.class,
            HistoryExportCommand.class
        },
        footer = {
            "  verbale history add   # remember the newest run",
            "  verbale history flaky --branch main",
            "  verbale history test RotaTest   # all nights of tests with that in their id"
        })
final class HistoryCommand implements Runnable {

    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm").withZone(ZoneOffset.UTC);
    private static final int ROW = 40;
    private static final int LONGEST_NAME = 90;
    private static final int MAX_DIGESTS = 100;

    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        throw new ParameterException(
                spec.commandLine(), "Say what to do: add, test, flaky, slower, reasons, index or export");
    }

    /**
     * A run of which nothing was left out: what told a reason may be among that, and it would be another one, and new.
     *
     * @throws IOException where it cannot be read, or is a copy that lacks something
     */
    static Run readWhole(Path named) throws IOException {
        Run run = RunReader.read(RunArgument.found(named));
        if (!Headline.leftOut(run).isEmpty())
            throw new ResultsFormatException(
                    named,
                    "this is a copy that lacks something of its run",
                    Headline.leftOut(run).replaceFirst("[.]$", ""),
                    "Name the run itself, or a whole pack of it");
        return run;
    }

    /** What all questions share. */
    private abstract static class Question implements Callable<Integer> {

        @Mixin
        final HistoryOption history = new HistoryOption();

        @Option(names = "--branch", paramLabel = "NAME", description = "Only runs of this branch")
        @Nullable
        String branch;

        @Option(
                names = "--limit",
                paramLabel = "N",
                defaultValue = "20",
                description = "How many at the most (${DEFAULT-VALUE})")
        int limit;

        @Spec
        CommandSpec spec;

        final TerminalText text = new TerminalText(Ansi.AUTO);

        @Override
        public Integer call() throws Exception {
            if (limit < 1)
                throw new ParameterException(spec.commandLine(), "--limit takes a number from 1, not " + limit);
            History read = history.readFilled(spec.commandLine().getErr());
            PrintWriter out = spec.commandLine().getOut();
            if (read.runs().stream().anyMatch(RunSummary::isMadeUp)) out.println(text.dim(HistoryOption.MADE_UP));
            if (read.runs().stream().noneMatch(HistoryOption.on(branch)))
                throw HistoryOption.noBranch(spec, read, branch);
            answer(branch == null ? read : read.only(HistoryOption.on(branch)), out);
            return ExitCodes.DONE;
        }

        abstract void answer(History read, PrintWriter out) throws IOException;

        /** What is longer than a line of a terminal loses its middle, which says least. */
        static String name(String name) {
            if (name.length() <= LONGEST_NAME) return name;
            int half = LONGEST_NAME / 2 - 1;
            return name.substring(0, half) + " … " + name.substring(name.length() - half);
        }

        static String newest(String row) {
            return row.length() <= ROW ? row : "…" + row.substring(row.length() - ROW);
        }

        /** Many tests may be the answer; the end of the row says how many runs ago. */
        void test(PrintWriter out, TestHistory test) {
            out.println();
            out.println(text.strong(name(test.name())));
            out.println("  " + newest(test.row()) + "  "
                    + text.dim(test.appearances().size() + " runs"));
        }
    }

    @Command(
            name = "add",
            description = {"Remembers runs.", "Each is one small file in the history's folder."},
            mixinStandardHelpOptions = true,
            footer = "  verbale history add target/verbale")
    static final class Add implements Callable<Integer> {

        @Parameters(arity = "0..*", paramLabel = "RUN", description = "Runs; left out, the newest in target/verbale")
        private List<Path> runs = new ArrayList<>();

        @Mixin
        private final HistoryOption history = new HistoryOption();

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws Exception {
            PrintWriter out = spec.commandLine().getOut();
            List<Path> named = runs.isEmpty() ? List.of(RunArgument.root()) : runs;
            for (Path one : named) {
                Run run = readWhole(one);
                Path file;
                try {
                    file = history.own().add(RunDigest.of(run));
                } catch (IOException failed) {
                    throw new FailureMessages.NotWritten(
                            "nothing was remembered in " + history.own().path(), failed);
                }
                out.println(run.name() + ": " + file);
            }
            return ExitCodes.DONE;
        }
    }

    @Command(
            name = "test",
            description = {
                "Shows what became of a test in each run.",
                "Of each one mark: . passed, ~ passed on a later attempt, F failed, - did not run."
            },
            mixinStandardHelpOptions = true,
            footer = "  verbale history test RotaTest")
    static final class OfTest extends Question {

        @Parameters(paramLabel = "TEXT", description = "What the id or the name of the test holds")
        private String wanted = "";

        @Override
        void answer(History read, PrintWriter out) throws IOException {
            List<TestHistory> found = read.tests().stream()
                    .filter(key ->
                            key.contains(wanted) || read.nameOf(key).orElse("").contains(wanted))
                    .limit(limit + 1L)
                    .flatMap(key -> read.test(key).stream())
                    .toList();
            if (found.isEmpty())
                throw new ParameterException(
                        spec.commandLine(), "no test that is remembered has '" + wanted + "' in its id or name");
            for (TestHistory one : found.subList(0, Math.min(limit, found.size()))) {
                test(out, one);
                out.println("  " + text.dim(one.key()));
                Appearance since = one.failingSince();
                if (since != null) {
                    Appearance passed = one.lastPassed();
                    out.println("  "
                            + text.bad("fails since " + DAY.format(since.run().started()))
                            + (passed == null
                                    ? ", and never passed"
                                    : ", passed last " + DAY.format(passed.run().started())));
                }
                if (read.flakiness(one.key()).isFlaky()) out.println("  " + Flaky.rate(read.flakiness(one.key())));
                read.durationStep(one.key()).ifPresent(step -> out.println("  " + Slower.step(step)));
                trait(one).ifPresent(trait -> out.println("  " + TerminalText.printable(trait.sentence())));
            }
            if (found.size() > limit) out.println("and more: say more of its id, or raise --limit");
        }

        /** What its failing runs have in common, of the last that are remembered whole. */
        private Optional<FailureTrait> trait(TestHistory test) throws IOException {
            List<Appearance> all = test.appearances();
            if (all.stream().allMatch(one -> one.recovered() || one.outcome().needsAttention()))
                return Optional.empty();
            List<RunDigest> runs = new ArrayList<>();
            for (Appearance one : all.subList(Math.max(0, all.size() - MAX_DIGESTS), all.size()))
                history.folder()
                        .digest(one.run().name(), one.run().started(), unread -> {})
                        .ifPresent(runs::add);
            return FailureTrait.of(test.key(), runs, ZoneId.systemDefault());
        }
    }

    @Command(
            name = "flaky",
            description = {
                "The tests that fail now and then, the most flaky first.",
                "The interval says how sure that is."
            },
            mixinStandardHelpOptions = true,
            footer = "  verbale history flaky --branch main")
    static final class Flaky extends Question {
        @Override
        void answer(History read, PrintWriter out) throws IOException {
            List<TestHistory> flaky = read.flaky(limit);
            if (flaky.isEmpty()) out.println("No test is flaky, as far as these runs tell.");
            for (TestHistory one : flaky) {
                test(out, one);
                out.println("  " + rate(read.flakiness(one.key())));
            }
            disturbances(read, out);
        }

        /** Runs that were not themselves, of which nothing counts above. */
        private void disturbances(History read, PrintWriter out) {
            List<Disturbance> all = read.disturbances();
            if (all.isEmpty()) return;
            out.println();
            out.println(text.strong("Not counted, for many tests failed together"));
            List<Disturbance> newest = all.subList(Math.max(0, all.size() - limit), all.size());
            for (int i = newest.size() - 1; i >= 0; i--) out.println("  " + disturbance(read, newest.get(i)));
            if (all.size() > limit) out.println(text.dim("  and " + (all.size() - limit) + " earlier"));
        }

        private static String disturbance(History read, Disturbance one) {
            String title = read.titleOf(one.reason());
            return DAY.format(one.run().started()) + "  " + one.tests() + " tests"
                    + (title.isEmpty() ? "" : ": " + TerminalText.printable(Texts.cut(title, LONGEST_NAME)));
        }

        static String rate(Flakiness flakiness) {
            return String.format(
                    Locale.ROOT,
                    "%s: %d of %d runs, between %.0f %% and %.0f %% (95 %% interval)",
                    flakiness.sentence(),
                    flakiness.failures(),
                    flakiness.runs(),
                    flakiness.low() * 100,
                    flakiness.high() * 100);
        }
    }

    @Command(
            name = "slower",
            description = {"The tests that take longer than they did, beyond noise.", "Those that lost most time first."
            },
            mixinStandardHelpOptions = true,
            footer = "  verbale history slower --steps")
    static final class Slower extends Question {

        @Option(
                names = "--steps",
                description = {"Steps instead of tests", "The ones that take longer in whichever tests have them."})
        private boolean steps;

        @Override
        void answer(History read, PrintWriter out) throws IOException {
            if (steps) {
                steps(read, out);
                return;
            }
            List<TestHistory> slower = read.slower(limit);
            if (slower.isEmpty()) out.println("No test is slower than noise explains.");
            for (TestHistory one : slower) {
                out.println();
                out.println(text.strong(name(one.name())));
                read.durationStep(one.key()).ifPresent(step -> out.println("  " + step(step)));
            }
        }

        private void steps(History read, PrintWriter out) throws IOException {
            List<SlowerStep> slower =
                    SlowerStep.in(history.folder(), read, limit, problem -> {}); // each was listed already
            if (slower.isEmpty()) out.println("No step is slower than noise explains.");
            for (SlowerStep one : slower) {
                out.println();
                out.println(text.strong(name(TerminalText.printable(one.name())))
                        + text.dim("  in " + (one.tests() == 1 ? "1 test" : one.tests() + " tests")));
                out.println("  " + step(one.step()));
            }
        }

        static String step(DurationStep step) {
            return String.format(
                    Locale.ROOT,
                    "%s by a factor of %.2f (%.2f to %.2f) since %s: %s, before %s",
                    step.factor() > 1 ? "slower" : "faster",
                    step.factor(),
                    step.low(),
                    step.high(),
                    DAY.format(step.since().started()),
                    DurationText.of(step.after()),
                    DurationText.of(step.before()));
        }
    }

    @Command(
            name = "reasons",
            description = "Why tests failed: since when, until when, in how many runs.",
            mixinStandardHelpOptions = true,
            footer = "  verbale history reasons --limit 5")
    static final class Reasons extends Question {
        @Override
        void answer(History read, PrintWriter out) throws IOException {
            List<ReasonHistory> reasons = read.reasons();
            if (reasons.isEmpty()) out.println("No test failed for a reason that is known.");
            for (ReasonHistory one : reasons.subList(0, Math.min(limit, reasons.size()))) {
                out.println();
                out.println(text.strong(Texts.cut(one.title(), 160)));
                String when = one.runs() == 1
                        ? "on " + DAY.format(one.first().started())
                        : DAY.format(one.first().started()) + " to "
                                + DAY.format(one.last().started()) + ", in " + one.runs() + " runs";
                out.println("  " + when + ", " + (one.failures() == 1 ? "1 failure" : one.failures() + " failures")
                        + "  " + text.dim(one.id()));
            }
            if (reasons.size() > limit) out.println("and " + (reasons.size() - limit) + " more");
        }
    }
}
