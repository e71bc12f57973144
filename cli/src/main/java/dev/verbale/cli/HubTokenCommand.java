package dev.verbale.cli;

import dev.verbale.sending.HubProject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lets somebody do something on a hub, or no more. */
@Command(
        name = "token",
        description = {
            "Makes a token of a hub, and shows it this once.",
            "With --end it ends those of a label. Who does it has a token that may do everything, in the variable VERBALE_HUB_TOKEN."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale hub token --project orto --role send --label \"CI of Orto\""})
final class HubTokenCommand implements Callable<Integer> {

    @Mixin
    private final HubGrant grant = new HubGrant();

    @Option(names = "--label", paramLabel = "TEXT", required = true, description = "Whose token it is")
    private String label = "";

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        HubProject there = grant.at(spec);
        return HubArguments.ask(
                spec,
                "no token was made or ended",
                () -> grant.isEnd() ? there.endTokens(label) : there.token(grant.role(), label));
    }
}
