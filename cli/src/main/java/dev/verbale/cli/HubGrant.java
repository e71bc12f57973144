package dev.verbale.cli;

import dev.verbale.sending.HubProject;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** What somebody may do on a hub, or that they may do nothing any more. */
final class HubGrant {

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(
            names = "--role",
            paramLabel = "ROLE",
            description = {
                "send, read, label or administer",
                "send, for CI; read, for people; label, for those who also say what is known of failures; or, for a person, administer, for everything."
            })
    private @Nullable String role;

    @Option(names = "--end", description = "It is over: of all roles, and with all sessions")
    private boolean end;

    /** Whether it is over. */
    boolean isEnd() {
        return end;
    }

    /** As it is written. */
    String role() {
        return String.valueOf(role);
    }

    /** Where that is said. */
    HubProject at(CommandSpec spec) {
        if (!end && role == null)
            throw new ParameterException(spec.commandLine(), "Say what it is, with --role send, read or label");
        return hub.administered(spec, end || "administer".equals(role));
    }
}
