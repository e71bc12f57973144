package dev.verbale.cli;

import dev.verbale.sending.HubProject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lets a person do something on a hub, or nothing any more. */
@Command(
        name = "person",
        description = {
            "Says what a person may do on a hub.",
            "One whom OpenID Connect or a trusted proxy names; with --end that is nothing any more. Who says so has a token that may do everything, in the variable VERBALE_HUB_TOKEN."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale hub person --project orto --name ada@orto.example --role label"})
final class HubPersonCommand implements Callable<Integer> {

    @Mixin
    private final HubGrant grant = new HubGrant();

    @Option(
            names = "--name",
            paramLabel = "NAME",
            required = true,
            description = "As provider or proxy says it; * for everybody")
    private String name = "";

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        HubProject there = grant.at(spec);
        return HubArguments.ask(spec, "nothing was said of " + name, () -> {
            if (grant.isEnd()) there.endPerson(name);
            else there.person(name, grant.role());
            return name + (grant.isEnd() ? " may do nothing any more" : " may " + grant.role());
        });
    }
}
