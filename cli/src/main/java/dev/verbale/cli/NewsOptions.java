package dev.verbale.cli;

import dev.verbale.messages.RunNews;
import dev.verbale.messages.RunNews.When;
import dev.verbale.messages.SentMessages;
import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** What a message says, and when one is wanted. */
final class NewsOptions {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--when",
            paramLabel = "WHEN",
            split = ",",
            converter = WhenConverter.class,
            description = {
                "new-failures, fixed or always, between commas",
                "Else nothing is sent. What may be new, and a run that is incomplete, counts as a new failure. Left out: always."
            })
    private Set<When> when = Set.of(When.ALWAYS);

    /** Hyphens, as in all words of commands. */
    static final class WhenConverter implements picocli.CommandLine.ITypeConverter<When> {
        @Override
        public When convert(String word) {
            for (When one : When.values())
                if (one.name()
                        .toLowerCase(java.util.Locale.ROOT)
                        .replace('_', '-')
                        .equals(word)) return one;
            throw new picocli.CommandLine.TypeConversionException(
                    "'" + word + "' is none of new-failures, fixed, always");
        }
    }

    @Option(names = "--page", paramLabel = "URL", description = "Where its page was published, for a link to it")
    private @Nullable String page;

    @Mixin
    private final BaselineOption baseline = new BaselineOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    /** Times in UTC: who reads it is anywhere. */
    RunNews read() throws IOException, YamlFormatException {
        Run read = run.read(TestKeeper.failuresAndLaterAttempts());
        TodayParts today = TodayParts.of(
                history.today(
                        read,
                        RunArgument.around(read),
                        rules.read(),
                        baseline.named(),
                        spec.commandLine().getErr()),
                LocalDate.now(ZoneId.systemDefault()),
                ZoneOffset.UTC);
        return new RunNews(read, today, page);
    }

    /** Whether one is wanted; says so where none is. */
    boolean isWanted(RunNews news) {
        if (news.isWanted(when)) return true;
        spec.commandLine().getOut().println("Nothing is sent: " + news.line());
        return false;
    }

    /** It was taken; where that cannot be written down, it may be sent once more, and is not called unsent. */
    static void remember(SentMessages sent, String key, PrintWriter err) {
        try {
            sent.add(key);
        } catch (IOException unwritten) {
            err.println(
                    "verbale: it was sent, and that could not be written down: " + FailureMessages.reason(unwritten));
        }
    }

    /** What was sent of that run. */
    static SentMessages sent(Run run) {
        Path folder = run.folder();
        return new SentMessages(
                folder.getFileSystem() == FileSystems.getDefault()
                        ? folder.resolve(".sent-messages")
                        : OpenArchives.beside(folder.resolve("sent-messages")));
    }
}
