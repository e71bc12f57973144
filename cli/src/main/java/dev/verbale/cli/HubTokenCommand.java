package dev.verbale.cli;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Lets somebody do something on a hub, or no more. */
@Command(
        name = "token",
        description = {
            "Makes a token of a hub and shows it, this once; with --end it ends those of a",
            "label. Who does it has a token that may do everything, in the variable",
            HubArguments.TOKEN + "."
        },
        mixinStandardHelpOptions = true)
final class HubTokenCommand implements Callable<Integer> {

    /** What a token may. */
    enum WantedRole {
        SEND,
        READ
    }

    private static final Duration PATIENCE = Duration.ofSeconds(30);

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(names = "--role", paramLabel = "ROLE", description = "send, for CI; or read, for people.")
    private @Nullable WantedRole role;

    @Option(names = "--label", paramLabel = "TEXT", required = true, description = "Whose token it is.")
    private String label = "";

    @Option(names = "--end", description = "Ends the tokens of that label, and their sessions.")
    private boolean end;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (!end && role == null)
            throw new ParameterException(spec.commandLine(), "Say what it may, with --role send or read");
        String query = "?label=" + encoded(label);
        if (!end && role != null)
            query += "&role=" + role.name().toLowerCase(Locale.ROOT) + "&project=" + encoded(hub.project(spec));
        URI address;
        try {
            address = URI.create(hub.address(spec).toString().replaceFirst("/+$", "") + "/api/v1/tokens" + query);
        } catch (IllegalArgumentException odd) {
            throw new ParameterException(spec.commandLine(), "--hub: " + odd.getMessage(), odd);
        }
        HttpResponse<String> answer;
        try {
            answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(address)
                                    .timeout(PATIENCE)
                                    .header("Authorization", "Bearer " + hub.token(spec))
                                    .method(end ? "DELETE" : "POST", BodyPublishers.noBody())
                                    .build(),
                            BodyHandlers.ofString());
        } catch (IOException away) {
            throw new FailureMessages.NotWritten("the hub at " + hub.address(spec) + " cannot be reached", away);
        }
        String text = answer.body().strip();
        if (answer.statusCode() >= 300)
            throw new ParameterException(spec.commandLine(), "The hub answered " + answer.statusCode() + ": " + text);
        spec.commandLine().getOut().println(text);
        return ExitCodes.DONE;
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
