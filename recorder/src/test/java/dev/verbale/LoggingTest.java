package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What java.util.logging and the standard streams write, in a JVM of its own. */
@Tag("newer-jdk")
class LoggingTest {

    @TempDir
    Path root;

    /** What the JVM runs. */
    static final class Talker {
        public static void main(String[] arguments) {
            dev.verbale.jul.VerbaleHandler.install();
            dev.verbale.jul.VerbaleHandler.install();
            var logger = Logger.getLogger("garden.gate");
            Verbale.step("Talk", () -> {
                logger.log(Level.WARNING, "plot {0} squeaks, password=hunter2", 12);
                logger.log(Level.SEVERE, "it broke", new IllegalStateException("rust"));
                System.out.println("printed password=hunter2");
                System.err.print("in two ");
                System.err.println("parts");
                Verbale.attach(Path.of("nowhere")); // the warning of the recorder itself must not come round again
            });
            Runtime.getRuntime().halt(7);
        }
    }

    @Test
    void lines_are_on_their_step_and_the_console_still_gets_them() throws Exception {
        Process jvm = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Dverbale.root=" + root,
                        "-Dverbale.console=true",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Talker.class.getName())
                .redirectErrorStream(true)
                .start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);

        Run run = RunReader.read(root);

        assertThat(jvm.waitFor()).as("halted: what was recorded stays").isEqualTo(7);
        assertThat(output).contains("printed password=hunter2", "in two parts", "squeaks");
        var step = (Entry.StepEntry) run.entries().get(0);
        List<String> lines = step.entries().stream()
                .map(entry -> (Entry.LogEntry) entry)
                .filter(line ->
                        !line.text().contains("LoggingTest") && !line.text().contains("nowhere"))
                .map(line -> line.level() + " " + line.logger() + " " + line.text())
                .toList();
        assertThat(lines)
                .contains(
                        "warn garden.gate plot 12 squeaks, password=[masked]",
                        "error garden.gate it broke",
                        "out console printed password=[masked]",
                        "err console in two parts");
        assertThat(lines.stream().filter(line -> line.equals("warn garden.gate plot 12 squeaks, password=[masked]")))
                .hasSize(1);
        assertThat(run.problems())
                .extracting(Problem::what)
                .satisfiesExactly(
                        first -> assertThat(first).contains("nowhere"),
                        sum -> assertThat(sum).isEqualTo("1 event could not be recorded: {attachment=1}"));
    }
}
