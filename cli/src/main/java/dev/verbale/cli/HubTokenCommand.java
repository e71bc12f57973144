package dev.verbale.cli;

import dev.verbale.sending.HubProject;
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

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(
            names = "--role",
            paramLabel = "ROLE",
            description =
                    "send, for CI; read, for people; or label, for those who\nalso say what is known of failures.")
    private @Nullable String role;

    @Option(names = "--label", paramLabel = "TEXT", required = true, description = "Whose token it is.")
    private String label = "";

    @Option(names = "--end", description = "Ends the tokens of that label, and their sessions.")
    private boolean end;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (!end && role == null)
            throw new ParameterException(spec.commandLine(), "Say what it may, with --role send, read or label");
        HubProject there = hub.administered(spec, end);
        return HubArguments.ask(
                spec,
                "no token was made or ended",
                () -> end ? there.endTokens(label) : there.token(String.valueOf(role), label));
    }
}
