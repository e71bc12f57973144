package dev.verbale.cli;

import dev.verbale.messages.MessageTemplate;
import dev.verbale.messages.RunNews;
import dev.verbale.messages.SentMessages;
import dev.verbale.messages.Webhook;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A run to a chat, a tracker, whatever takes JSON. */
@Command(
        name = "notify",
        description =
                "Sends what a run came to as JSON to an address, such as that of a chat's channel. Once for each run.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale notify --url 'https://chat.orto.example/hooks/{CHAT_TOKEN}' \\",
            "      --template text --when new-failures"
        })
final class NotifyCommand implements Callable<Integer> {

    @Mixin
    private final NewsOptions options = new NewsOptions();

    @Option(
            names = "--url",
            paramLabel = "URL",
            required = true,
            description = "Where to; {NAME} comes from the environment")
    private String url = "";

    @Option(
            names = "--header",
            paramLabel = "HEADER",
            description = {"Sent along, as 'Authorization: Bearer {TOKEN}'", "Filled in like the address."})
    private List<String> headers = List.of();

    @Option(
            names = "--template",
            paramLabel = "TEMPLATE",
            defaultValue = "plain",
            description = {
                "A file, or plain, text, blocks, card",
                "plain has all that is known; text, blocks and card are the shapes that chats take. Left out: ${DEFAULT-VALUE}."
            })
    private String template = "";

    @Option(
            names = "--patience",
            paramLabel = "SECONDS",
            defaultValue = "60",
            description = "How long it is tried again (${DEFAULT-VALUE})")
    private int patience;

    @Option(names = "--again", description = "Also where this run was sent there already")
    private boolean again;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Webhook webhook;
        MessageTemplate message;
        try {
            webhook = new Webhook(url, System.getenv(), Duration.ofSeconds(Math.max(0, patience)));
            headers.forEach(webhook::header);
            message = MessageTemplate.of(template);
        } catch (IllegalArgumentException | IOException wrong) {
            throw new ParameterException(spec.commandLine(), String.valueOf(wrong.getMessage()));
        }
        RunNews news = options.read();
        if (!options.isWanted(news)) return ExitCodes.DONE;
        SentMessages sent = NewsOptions.sent(news.run());
        String key = SentMessages.key("notify", news.run().name(), url, template);
        if (!again && sent.has(key)) {
            spec.commandLine().getOut().println("This run was sent there already. With --again it is sent once more.");
            return ExitCodes.DONE;
        }
        try {
            webhook.send(message.of(news), key);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the message was not sent", failed);
        }
        NewsOptions.remember(sent, key, spec.commandLine().getErr());
        spec.commandLine().getOut().println("Sent to " + webhook.shown() + ": " + news.line());
        return ExitCodes.DONE;
    }
}
