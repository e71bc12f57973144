package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.Triage;
import dev.verbale.rules.TriageRule;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Which rules: those of a file, and what people know on the hub that the environment names. */
final class RulesOption {

    @Option(
            names = "--rules",
            paramLabel = "FILE",
            description = {
                "The file of rules, not verbale-rules.yaml",
                "Left out: verbale-rules.yaml, where there is one."
            })
    private @Nullable Path file;

    private @Nullable Rules read;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    /** Where the hub cannot be asked, that is said, and those of the file are all. */
    Rules read() throws YamlFormatException, IOException {
        if (read != null) return read;
        Rules ofFile = ofFile();
        try {
            read = withHub(ofFile);
        } catch (IOException away) {
            TeamHub.warn(spec.commandLine().getErr(), away, "what its people know is left out");
            read = ofFile;
        }
        return read;
    }

    /** Those of the file alone, with no hub. */
    Rules ofFile() throws YamlFormatException, IOException {
        if (file != null) return RulesReader.read(file);
        Path usual = Path.of(Rules.DEFAULT);
        return Files.exists(usual) ? RulesReader.read(usual) : Rules.NONE;
    }

    /**
     * Those, under what people know on the hub.
     *
     * @throws IOException where the hub cannot be asked
     */
    Rules withHub(Rules ofFile) throws IOException {
        Optional<TeamHub> hub = TeamHub.ofEnvironment();
        return hub.isEmpty() ? ofFile : ofFile.under(hub.get().rules());
    }

    /** What they say of the failures of a run, by the ids of the tests. */
    Map<String, String> labels(Run run) throws YamlFormatException, IOException {
        LocalDate today = LocalDate.now(ZoneId.systemDefault());
        return triage(run, today).sentences(today);
    }

    /** The labels that they give to the failures of a run, by the ids of the tests. */
    Map<String, String> labelWords(Run run) throws YamlFormatException, IOException {
        return triage(run, LocalDate.now(ZoneId.systemDefault())).labels();
    }

    private Triage triage(Run run, LocalDate today) throws YamlFormatException, IOException {
        List<TriageRule> triage = read().triage();
        return triage.isEmpty() ? new Triage(List.of()) : Triage.of(run, triage, today);
    }
}
