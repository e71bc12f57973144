package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import picocli.CommandLine;

/** What somebody meets who looks for a command. */
class HelpTest {

    private static final int SCREEN = 24;
    private static final int WIDTH = 80;

    static Stream<List<String>> commands() {
        List<List<String>> all = new ArrayList<>();
        collect(Main.commandLine(Main.NOWHERE, Main.NOWHERE, "?"), List.of(), all);
        return all.stream();
    }

    private static void collect(CommandLine at, List<String> path, List<List<String>> all) {
        all.add(path);
        at.getSubcommands().forEach((word, below) -> {
            List<String> there = new ArrayList<>(path);
            there.add(word);
            if (!word.equals("help")) collect(below, there, all);
        });
    }

    @ParameterizedTest
    @MethodSource("commands")
    void a_help_is_a_screen_that_begins_with_an_example_and_is_the_same_however_it_is_asked_for(List<String> command) {
        List<String> asked = new ArrayList<>(List.of("help"));
        asked.addAll(command);
        List<String> option = new ArrayList<>(command);
        option.add("--help");

        String help = out(asked.toArray(String[]::new));

        assertThat(help.lines().count()).isLessThanOrEqualTo(SCREEN);
        assertThat(help.lines()).allSatisfy(line -> assertThat(line.length()).isLessThanOrEqualTo(WIDTH));
        assertThat(help.lines().findFirst().orElse(""))
                .startsWith("  ")
                .contains("verbale " + String.join(" ", command.isEmpty() ? List.of("failures") : command));
        assertThat(out(option.toArray(String[]::new))).isEqualTo(help);
        if (command.isEmpty()) return;
        String rows = help.substring(help.indexOf("Usage: "));
        assertThat(rows.lines().filter(line -> line.startsWith("  ")))
                .allSatisfy(line -> assertThat(line)
                        .as("a word, and what it is")
                        .matches("  \\S+( \\.\\.\\.)? {2,}\\S.*|   +\\S.*"));
    }

    @Test
    void at_the_top_there_are_twenty_in_five_groups() {
        String help = out("help");

        assertThat(Commands.values()).hasSizeLessThanOrEqualTo(20);
        assertThat(help.lines().filter(line -> line.matches("[A-Z][a-z]+( on)? +[a-z]+ .*")))
                .hasSize(5);
        for (Commands one : Commands.values()) assertThat(help).contains(" " + one.word() + " ");
    }

    @Test
    void a_start_loads_the_command_that_it_needs_and_no_other() {
        assertThat(Main.commandLine(Main.NOWHERE, Main.NOWHERE, "--version").getSubcommands())
                .containsOnlyKeys("help", "completion");
        assertThat(Main.commandLine(Main.NOWHERE, Main.NOWHERE, "failures", "x").getSubcommands())
                .containsOnlyKeys("help", "failures", "completion");
        assertThat(Main.commandLine(Main.NOWHERE, Main.NOWHERE, "help", "page").getSubcommands())
                .containsOnlyKeys("help", "page", "completion");
    }

    /** By bash itself, which runs what is printed. */
    @Test
    void bash_completes_commands_their_own_and_options(@TempDir Path folder) throws Exception {
        Path script = folder.resolve("completion");
        Files.writeString(script, out("completion", "bash"));

        assertThat(completed(script, "verbale", "pu")).contains("publish");
        assertThat(completed(script, "verbale", "history", "fl")).contains("flaky");
        assertThat(completed(script, "verbale", "page", "--sing")).contains("--single-file");
        assertThat(completed(script, "verbale", "export", "--format", "")).contains("junit", "har");
        assertThat(out("completion", "zsh"))
                .startsWith("autoload -U +X compinit")
                .contains("bashcompinit");
    }

    private static List<String> completed(Path script, String... words) throws IOException, InterruptedException {
        String line = String.join(" ", words);
        String typed = "source '" + script + "'; COMP_WORDS=(" + quoted(words) + "); COMP_CWORD=" + (words.length - 1)
                + "; COMP_LINE='" + line + "'; COMP_POINT=" + line.length()
                + "; _complete_verbale; printf '%s\\n' \"${COMPREPLY[@]}\"";
        Process bash = new ProcessBuilder("bash", "--norc", "-c", typed)
                .redirectErrorStream(true)
                .start();
        bash.getOutputStream().close();
        List<String> all = new String(bash.getInputStream().readAllBytes())
                .lines()
                .map(String::strip)
                .toList();
        assertThat(bash.waitFor(30, TimeUnit.SECONDS)).isTrue();
        return all;
    }

    private static String quoted(String... words) {
        return String.join(" ", Stream.of(words).map(word -> "'" + word + "'").toList());
    }

    private static String out(String... arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        int code = Main.commandLine(new PrintWriter(out), new PrintWriter(err), arguments)
                .execute(arguments);
        assertThat(Map.of("code", String.valueOf(code), "err", err.toString()))
                .isEqualTo(Map.of("code", "0", "err", ""));
        return out.toString();
    }
}
