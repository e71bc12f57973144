package dev.verbale.cli;

import dev.verbale.history.HistoryFolder;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.TriageRule;
import dev.verbale.rules.yaml.YamlFormatException;
import dev.verbale.sending.HubProject;
import dev.verbale.sending.SendOptions;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** The hub that the environment names, as somebody asks it who reads runs here: what its people know, and what it remembers. */
final class TeamHub {

    /** Who only reads does not wait long. */
    private static final Duration PATIENCE = Duration.ofSeconds(3);

    private final HubProject hub;
    private final Path folder;

    private TeamHub(HubProject hub, Path folder) {
        this.hub = hub;
        this.folder = folder;
    }

    /** Empty where the environment names none, or not all that it takes to ask it. */
    static Optional<TeamHub> ofEnvironment() {
        String address = HubArguments.variable(HubArguments.HUB);
        String project = HubArguments.variable(HubArguments.PROJECT);
        String token = HubArguments.variable(HubArguments.TOKEN);
        if (address == null || project == null || token == null) return Optional.empty();
        try {
            var options = new SendOptions(URI.create(address), project, null, token, PATIENCE);
            return Optional.of(new TeamHub(new HubProject(options), Path.of(".verbale", "hub-" + project)));
        } catch (IllegalArgumentException none) {
            throw new IllegalArgumentException(
                    "The variables " + HubArguments.HUB + " and " + HubArguments.PROJECT + " name no hub: "
                            + none.getMessage(),
                    none);
        }
    }

    /**
     * What its people know of reasons.
     *
     * @throws IOException where it could not be asked
     */
    List<TriageRule> rules() throws IOException {
        try {
            return RulesReader.read(Path.of("the rules of the hub"), hub.rules())
                    .triage();
        } catch (YamlFormatException odd) {
            throw new IOException(odd.getMessage(), odd);
        }
    }

    /** What it remembers, in a folder here; where it cannot be asked, that is as it was when it was asked last. */
    HistoryFolder history(PrintWriter err) throws IOException {
        var here = new HistoryFolder(folder);
        here.make();
        try {
            hub.history(folder);
        } catch (IOException away) {
            warn(err, away, "what was remembered when it was asked last is taken");
        }
        return here;
    }

    static void warn(PrintWriter err, IOException away, String instead) {
        err.println("verbale: " + away.getMessage() + "; " + instead);
    }
}
