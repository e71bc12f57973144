package dev.verbale.cli;

import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesFormatException;
import dev.verbale.rules.RulesReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which rules. */
final class RulesOption {

    @Option(
            names = {"--rules", "--try"},
            paramLabel = "FILE",
            description = "The file of rules. Left out: " + Rules.DEFAULT + ", where there is one.")
    private @Nullable Path file;

    Rules read() throws RulesFormatException, IOException {
        if (file != null) return RulesReader.read(file);
        Path usual = Path.of(Rules.DEFAULT);
        return Files.exists(usual) ? RulesReader.read(usual) : Rules.NONE;
    }
}
