package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.report.PageProgress;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.progress.RunGrowth;
import dev.verbale.results.progress.RunProgress;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Shows a run while it is going, from its folder alone. */
@Command(
        name = "follow",
        description = {
            "Shows a run while it goes: what is running, how far it is, failures as they come; and keeps its page up to date.",
            "Ends when every JVM of the run has closed its journal and nothing more is written, or with Ctrl-C. It only reads what the tests write."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale runs follow   # the newest run in target/verbale",
            "  verbale runs follow --next   # the one that begins next"
        })
final class FollowCommand implements Callable<Integer> {

    /** A fifth of one processor at most goes into looking. */
    private static final int REST_BY_COST = 5;

    /** What is at work and writes nothing for so long was killed. */
    private static final Duration LONGEST_SILENCE = Duration.ofMinutes(10);

    private static final long LOOKED_EVERY_MILLIS = 250;

    @Mixin
    private final RunArgument argument = new RunArgument();

    @Option(names = "--next", description = "Waits for a run that is not there yet")
    private boolean isNext;

    @Option(names = "--no-page", description = "Only the terminal; no page is written")
    private boolean hasNoPage;

    @Option(
            names = "--silence",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = {
                "Over when closed and silent for so long (${DEFAULT-VALUE})",
                "Ends when all journals are closed and nothing was written for so long: another JVM may begin."
            })
    private int silence;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Mixin
    private final PageLookOption look = new PageLookOption();

    @Spec
    private CommandSpec spec;

    private int pages;

    @Override
    public Integer call() throws Exception {
        if (silence < 0) throw new ParameterException(spec.commandLine(), "--silence takes 0 or more");
        PrintWriter out = spec.commandLine().getOut();
        RunFolder folder = isNext ? argument.next(spec.commandLine().getErr()) : RunReader.find(argument.path());
        BaselineFinder earlier = history.earlier(folder, spec.commandLine().getErr());
        PageOptions options = options(earlier);
        Expectation expected = earlier.history().expected();
        var text = new FollowText(out, spec.commandLine().getColorScheme().ansi(), expected);
        var growth = new RunGrowth(folder);
        Run run = null;
        RunProgress progress = null;
        while (true) {
            long from = System.nanoTime();
            if (growth.look() || run == null || progress == null) {
                run = RunReader.read(folder.path());
                progress = RunProgress.of(run);
                if (!hasNoPage) page(folder, progress, options, expected, text);
                text.news(progress, rules.labels(progress.ended()));
            }
            Duration silent = growth.silent();
            if (silent.compareTo(progress.isOver() ? Duration.ofSeconds(silence) : LONGEST_SILENCE) >= 0)
                return end(run, folder, options, text);
            text.show(silent);
            rest((System.nanoTime() - from) / 1_000_000 * REST_BY_COST);
            rest(LOOKED_EVERY_MILLIS);
        }
    }

    private Integer end(Run run, RunFolder folder, PageOptions options, FollowText text)
            throws FailureMessages.NotWritten, YamlFormatException, IOException {
        text.end(run, rules.labels(run));
        if (hasNoPage) return ExitCodes.DONE;
        try {
            text.page(Page.write(run, folder.page(), options));
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the page was not written to " + folder.page(), failed);
        }
        return ExitCodes.DONE;
    }

    private void page(
            RunFolder folder, RunProgress progress, PageOptions options, Expectation expected, FollowText text)
            throws IOException {
        var going = new PageProgress(progress, expected, ++pages);
        try {
            Path index = Page.write(progress.ended(), folder.page(), options.withProgress(going));
            if (pages == 1) text.page(index);
        } catch (IOException failed) {
            hasNoPage = true; // what the terminal shows needs no page
            text.say("The page was not written to " + folder.page() + ": " + FailureMessages.reason(failed));
        }
    }

    private PageOptions options(BaselineFinder earlier) throws IOException {
        try {
            return look.options().withEarlier(earlier).withCode(sources.code(spec));
        } catch (IllegalArgumentException wrong) {
            throw new ParameterException(spec.commandLine(), wrong.getMessage(), wrong);
        }
    }

    private static void rest(long millis) throws InterruptedException {
        Thread.sleep(millis);
    }
}
