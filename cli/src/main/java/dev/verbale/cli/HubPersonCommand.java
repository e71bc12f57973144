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

/** Lets a person do something on a hub, or nothing any more. */
@Command(
        name = "person",
        description = {
            "Says what a person may do on a hub, one whom OpenID Connect or a trusted proxy",
            "names; with --end that is nothing any more. Who says so has a token that may do",
            "everything, in the variable " + HubArguments.TOKEN + "."
        },
        mixinStandardHelpOptions = true)
final class HubPersonCommand implements Callable<Integer> {

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(
            names = "--name",
            paramLabel = "NAME",
            required = true,
            description = "As the provider or the proxy says it; * for everybody whom it lets in.")
    private String name = "";

    @Option(names = "--role", paramLabel = "ROLE", description = "read, label or send; or administer, for everything.")
    private @Nullable String role;

    @Option(names = "--end", description = "The person may do nothing any more, in any project.")
    private boolean end;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (!end && role == null)
            throw new ParameterException(spec.commandLine(), "Say what the person may, with --role read or label");
        HubProject there = hub.administered(spec, end || "administer".equals(role));
        return HubArguments.ask(spec, "nothing was said of " + name, () -> {
            if (end) there.endPerson(name);
            else there.person(name, String.valueOf(role));
            return name + (end ? " may do nothing any more" : " may " + role);
        });
    }
}
