package dev.verbale.steps;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.steps.garden.SeedPage;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.jar.Attributes;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The agent, in JVMs that are started with it. */
@Tag("newer-jdk")
class AgentTest {

    @TempDir
    Path folder;

    @Test
    void annotated_methods_of_a_package_are_steps_in_final_classes_and_among_themselves() throws Exception {
        assertThat(output("=dev.verbale.steps.garden")).isEqualTo("sown 3 basil, drought\n");

        assertThat(steps())
                .containsExactly(
                        "Sow 3 of basil: passed",
                        "  open the packet: passed",
                        "Unlock with [masked]: passed",
                        "Wait: errored");
        assertThat(journal()).doesNotContain("beetroot-42");
    }

    @Test
    void all_public_methods_are_steps_where_that_is_asked() throws Exception {
        assertThat(output("=dev.verbale.steps.garden:public")).isEqualTo("sown 3 basil, drought\n");

        assertThat(steps())
                .containsExactly(
                        "main: passed",
                        "  Sow 3 of basil: passed",
                        "    open the packet: passed",
                        "  Unlock with [masked]: passed",
                        "  count left over: passed",
                        "  Wait: errored");
        assertThat(journal()).doesNotContain("to string");
    }

    @Test
    void without_a_package_it_says_what_to_write_and_the_program_runs() throws Exception {
        assertThat(output(""))
                .contains("Verbale's step agent: it was given no package")
                .contains("-javaagent:verbale-steps.jar=PACKAGE")
                .contains("sown 3 basil, drought");
    }

    private String output(String argument) throws Exception {
        Path agent = folder.resolve("agent.jar");
        var manifest = new Manifest();
        manifest.getMainAttributes().put(Attributes.Name.MANIFEST_VERSION, "1.0");
        manifest.getMainAttributes().putValue("Premain-Class", StepAgent.class.getName());
        try (OutputStream out = Files.newOutputStream(agent)) {
            new JarOutputStream(out, manifest).close();
        }
        Process jvm = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-javaagent:" + agent + argument,
                        "-Dverbale.root=" + folder.resolve("root"),
                        "-Dverbale.summary-line=false",
                        "-cp",
                        System.getProperty("java.class.path"),
                        SeedPage.class.getName())
                .redirectErrorStream(true)
                .start();
        String output = new String(jvm.getInputStream().readAllBytes());
        assertThat(jvm.waitFor()).isZero();
        return output;
    }

    private String journal() throws Exception {
        return Files.readString(RunReader.find(folder.resolve("root")).path().resolve("journals/worker-1.jsonl"));
    }

    private List<String> steps() throws Exception {
        List<String> lines = new ArrayList<>();
        add(RunReader.read(folder.resolve("root")).entries(), "", lines);
        return lines;
    }

    private static void add(List<Entry> entries, String indent, List<String> lines) {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            lines.add(indent + step.name() + ": " + step.outcome().word());
            add(step.entries(), indent + "  ", lines);
        }
    }
}
