package dev.verbale.cli;

import dev.verbale.messages.MailServer;
import dev.verbale.messages.RunMail;
import dev.verbale.messages.RunNews;
import dev.verbale.messages.SentMessages;
import java.io.IOException;
import java.net.URI;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A run by mail. */
@Command(
        name = "mail",
        description = "Mails what a run came to: what is new first, with small screenshots. Once for each run.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale mail --to garden@orto.example --from ci@orto.example \\",
            "      --server smtp://ci@mail.orto.example --when new-failures,fixed"
        })
final class MailCommand implements Callable<Integer> {

    @Mixin
    private final NewsOptions options = new NewsOptions();

    @Option(names = "--to", paramLabel = "ADDRESS", required = true, split = ",", description = "Who gets it")
    private List<String> to = List.of();

    @Option(names = "--from", paramLabel = "ADDRESS", required = true, description = "Whom it is from")
    private String from = "";

    @Option(
            names = "--server",
            paramLabel = "URL",
            required = true,
            defaultValue = "${env:VERBALE_MAIL_SERVER}",
            description = {
                "smtp://USER@HOST:PORT, or smtps://",
                "With STARTTLS unless it is this machine. Left out: what VERBALE_MAIL_SERVER says. The password stands in VERBALE_MAIL_PASSWORD."
            })
    private @Nullable String server;

    @Option(names = "--title", paramLabel = "TEXT", description = "Whose runs they are, before the subject")
    private String title = "";

    @Option(names = "--again", description = "Also where this run was mailed to them already")
    private boolean again;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        RunNews news = options.read();
        if (!options.isWanted(news)) return ExitCodes.DONE;
        RunMail mail;
        MailServer by;
        try {
            mail = new RunMail(news, title, from, to);
            by = new MailServer(URI.create(String.valueOf(server)), System.getenv("VERBALE_MAIL_PASSWORD"));
        } catch (IllegalArgumentException wrong) {
            throw new ParameterException(spec.commandLine(), String.valueOf(wrong.getMessage()));
        }
        SentMessages sent = NewsOptions.sent(news.run());
        String key = SentMessages.key("mail", news.run().name(), String.join(",", to));
        if (!again && sent.has(key)) {
            spec.commandLine()
                    .getOut()
                    .println("This run was mailed to them already. With --again it is mailed once more.");
            return ExitCodes.DONE;
        }
        try {
            mail.send(by);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the mail was not sent", failed);
        }
        NewsOptions.remember(sent, key, spec.commandLine().getErr());
        spec.commandLine().getOut().println("Mailed to " + String.join(", ", to) + ": " + mail.subject());
        return ExitCodes.DONE;
    }
}
