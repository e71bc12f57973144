package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.MarkedPage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;

/** The page of all commands has what each of them takes: the line of its help, and the rest. */
class CommandsPageTest {

    private static final Path PAGE = Path.of("..", "docs", "commands.md");

    @Test
    void each_command_is_there_with_all_that_it_takes() throws Exception {
        MarkedPage.assertHas(PAGE, "commands", reference(), "mvn test -pl cli -am -Dtest=CommandsPageTest");
    }

    @Test
    void the_page_says_what_each_exit_code_means() throws Exception {
        String page = Files.readString(PAGE);
        for (var code : ExitCodes.class.getDeclaredFields()) {
            code.setAccessible(true);
            if (code.getType() == int.class) assertThat(page).contains("\n| " + code.getInt(null) + " | ");
        }
    }

    private static String reference() {
        var text = new StringBuilder();
        CommandLine all = Main.commandLine(Main.NOWHERE, Main.NOWHERE, "?");
        for (Commands one : Commands.values()) add(text, all.getSubcommands().get(one.word()), "##");
        add(text, all.getSubcommands().get("completion"), "##");
        return text.toString();
    }

    private static void add(StringBuilder text, CommandLine command, String heading) {
        CommandSpec spec = command.getCommandSpec();
        text.append('\n')
                .append(heading)
                .append(' ')
                .append(spec.qualifiedName())
                .append("\n\n");
        text.append(sentences(spec.usageMessage().description())).append("\n\n```sh\n");
        for (String example : spec.usageMessage().footer())
            text.append(example.substring(2)).append('\n');
        text.append("```\n\n`").append(HelpText.usage(spec)).append("`\n");
        List<ArgSpec> arguments = HelpText.arguments(spec);
        if (!arguments.isEmpty()) text.append("\n| | |\n|---|---|\n");
        for (ArgSpec one : arguments)
            text.append("| `")
                    .append(HelpText.word(one).replace("|", "\\|"))
                    .append("` | ")
                    .append(sentences(one.description()).replace("|", "\\|"))
                    .append(" |\n");
        Map<String, CommandLine> below = new TreeMap<>(command.getSubcommands());
        below.values().forEach(one -> add(text, one, heading + "#"));
    }

    private static String sentences(String... parts) {
        return Stream.of(parts).map(part -> part.replaceFirst("[.]?$", "")).collect(Collectors.joining(". ", "", "."));
    }
}
