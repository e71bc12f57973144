package dev.verbale.cli;

import dev.verbale.sending.HubProject;
import dev.verbale.sending.HubRefused;
import dev.verbale.sending.SendOptions;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** Which hub, whose runs, and as whom. */
final class HubArguments {

    static final String TOKEN = "VERBALE_HUB_TOKEN";

    static final String HUB = "VERBALE_HUB";
    static final String PROJECT = "VERBALE_HUB_PROJECT";

    @Option(names = "--hub", paramLabel = "URL", description = "Where the hub is; left out, VERBALE_HUB")
    private @Nullable String address;

    @Option(names = "--project", paramLabel = "NAME", description = "Whose runs; left out, VERBALE_HUB_PROJECT")
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

    /** A question, with its answer for a person. */
    interface Question {
        String answer() throws IOException;
    }

    /**
     * The project to be asked about or changed, by somebody who has time.
     *
     * @param any whether it is no matter which one
     */
    HubProject administered(CommandSpec spec, boolean any) {
        try {
            return new HubProject(new SendOptions(
                    address(spec), any ? "any" : project(spec), null, token(spec), Duration.ofSeconds(30)));
        } catch (IllegalArgumentException odd) {
            throw new ParameterException(spec.commandLine(), String.valueOf(odd.getMessage()), odd);
        }
    }

    /** Asks, and shows the answer. */
    static int ask(CommandSpec spec, String failed, Question question) throws Exception {
        String answer;
        try {
            answer = question.answer();
        } catch (HubRefused refused) {
            throw new ParameterException(spec.commandLine(), String.valueOf(refused.getMessage()), refused);
        } catch (IOException away) {
            throw new FailureMessages.NotWritten(failed, away);
        }
        spec.commandLine().getOut().println(answer.strip());
        return ExitCodes.DONE;
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
