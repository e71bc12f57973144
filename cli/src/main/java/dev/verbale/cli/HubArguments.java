package dev.verbale.cli;

import java.net.URI;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** Which hub, whose runs, and as whom. */
final class HubArguments {

    static final String TOKEN = "VERBALE_HUB_TOKEN";

    static final String HUB = "VERBALE_HUB";
    static final String PROJECT = "VERBALE_HUB_PROJECT";

    @Option(names = "--hub", paramLabel = "URL", description = "Where the hub is. Left out: what " + HUB + " says.")
    private @Nullable String address;

    @Option(
            names = "--project",
            paramLabel = "NAME",
            description = "Whose runs they are there. Left out: what " + PROJECT + " says.")
    private @Nullable String project;

    URI address(CommandSpec spec) {
        String given = or(address, HUB);
        if (given == null) throw missing(spec, "Say where the hub is, with --hub or the variable " + HUB);
        return URI.create(given);
    }

    String project(CommandSpec spec) {
        String given = or(project, PROJECT);
        if (given == null) throw missing(spec, "Say whose runs they are, with --project or the variable " + PROJECT);
        return given;
    }

    String token(CommandSpec spec) {
        String given = variable(TOKEN);
        if (given == null) throw missing(spec, "The hub asks for a token, which is in the variable " + TOKEN);
        return given;
    }

    private static @Nullable String or(@Nullable String given, String variable) {
        return given == null || given.isBlank() ? variable(variable) : given.strip();
    }

    /** What it says; null where it says nothing. */
    static @Nullable String variable(String name) {
        String set = System.getenv(name);
        return set == null || set.isBlank() ? null : set.strip();
    }

    private static ParameterException missing(CommandSpec spec, String what) {
        return new ParameterException(spec.commandLine(), what);
    }
}
