package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import picocli.CommandLine;
import picocli.CommandLine.ParameterException;

/** Each command that a document shows is one that there is, with options that it has. */
class DocumentedCommandsTest {

    /** In a block of shell, behind what is set for it alone; to what is no word of it any more. */
    private static final Pattern COMMAND = Pattern.compile(
            "(?m)^ *(?:\\$ )?(?:[A-Z_]+=\\S+ )*(?:bin/)?verbale ((?:'[^']*'|\"[^\"]*\"|[^\\n#|&;>'\"])+)");

    private static final Pattern BLOCK = Pattern.compile("(?ms)^```(?:sh|console|bash)\\n(.*?)^```");
    private static final Pattern WORD = Pattern.compile("'([^']*)'|\"([^\"]*)\"|(\\S+)");

    static Stream<String> commands() throws IOException {
        List<String> commands = new ArrayList<>();
        try (Stream<Path> documents = Files.list(Path.of("../docs"))) {
            for (Path document : Stream.concat(documents, Stream.of(Path.of("../README.md")))
                    .filter(one -> one.toString().endsWith(".md"))
                    .sorted()
                    .toList()) {
                Matcher block = BLOCK.matcher(Files.readString(document));
                while (block.find()) {
                    Matcher command = COMMAND.matcher(block.group(1).replace("\\\n", " "));
                    while (command.find())
                        commands.add(
                                document.getFileName() + ": " + command.group(1).strip());
                }
            }
        }
        return commands.stream();
    }

    @ParameterizedTest
    @MethodSource("commands")
    void it_is_understood(String shown) {
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(shown.substring(shown.indexOf(": ") + 2));
        while (word.find())
            words.add(word.group(1) != null ? word.group(1) : word.group(2) != null ? word.group(2) : word.group(3));
        CommandLine verbale = Main.commandLine(Main.NOWHERE, Main.NOWHERE, words.toArray(String[]::new));
        String complaint = "";
        try {
            verbale.parseArgs(words.toArray(String[]::new));
        } catch (ParameterException wrong) {
            complaint = String.valueOf(wrong.getMessage());
        }
        assertThat(complaint).isEmpty();
    }
}
