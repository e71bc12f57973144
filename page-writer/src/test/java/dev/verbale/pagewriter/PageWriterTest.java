package dev.verbale.pagewriter;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.testing.Launched;
import java.io.File;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The last JVM of a run writes the page, and no other does. */
class PageWriterTest {

    @TempDir
    Path root;

    @Test
    void a_run_of_one_jvm_has_a_page_and_its_address_is_printed() throws Exception {
        Launched launched = Launched.jvm(root, Forks.class, "1", "passes");

        Path page = launched.run().folder().resolve("page/index.html");
        assertThat(page).exists();
        assertThat(launched.output()).contains("Page: " + page.toAbsolutePath().toUri());
        assertThat(launched.run().folder().resolve("writers.lock")).doesNotExist();
    }

    @Test
    void the_setting_says_when() throws Exception {
        for (String rule : List.of("off", "failures", "always")) {
            for (String end : List.of("passes", "fails")) {
                Launched launched = Launched.jvm(
                        root.resolve(rule + end),
                        Launched.classPath(),
                        List.of("-Dverbale.page=" + rule),
                        Forks.class,
                        "1",
                        end);

                boolean wanted = rule.equals("always") || (rule.equals("failures") && end.equals("fails"));
                assertThat(Files.exists(launched.run().folder().resolve("page")))
                        .as(rule + " " + end)
                        .isEqualTo(wanted);
            }
        }
    }

    @Test
    void settings_give_the_page_a_look_and_one_that_cannot_be_is_said() throws Exception {
        Launched titled = Launched.jvm(
                root.resolve("titled"),
                Launched.classPath(),
                List.of("-Dverbale.page.title=Orto & friends", "-Dverbale.page.leave-out=environment"),
                Forks.class,
                "1",
                "passes");
        Launched wrong = Launched.jvm(
                root.resolve("wrong"),
                Launched.classPath(),
                List.of("-Dverbale.page.accent=red"),
                Forks.class,
                "1",
                "passes");

        assertThat(titled.run().folder().resolve("page/data/run.js"))
                .content()
                .contains("\"title\":\"Orto & friends\"")
                .doesNotContain("\"facts\"");
        assertThat(wrong.output()).contains("was not written", "the colour 'red' is none");
    }

    @Test
    void a_build_plugin_that_writes_the_page_is_left_to_it() throws Exception {
        Launched launched = Launched.jvm(
                root, Launched.classPath(), List.of("-Dverbale.build.page=plugin"), Forks.class, "1", "fails");

        assertThat(launched.run().folder().resolve("page")).doesNotExist();
    }

    @Test
    void of_several_jvms_the_last_one_writes_it_and_a_killed_one_keeps_nobody_from_it() throws Exception {
        List<Process> jvms = new ArrayList<>();
        for (int i = 1; i <= 4; i++) jvms.add(waiting(i));
        for (Process jvm : jvms) awaitRecorded(jvm);
        RunFolder run = new ResultsRoot(root).run("shared");

        jvms.get(0).destroyForcibly().waitFor();
        for (int i = 1; i <= 2; i++) end(jvms.get(i));
        assertThat(run.page()).doesNotExist();
        end(jvms.get(3));

        assertThat(run.page().resolve("index.html")).exists();
        assertThat(Files.readString(run.page().resolve("data/run.js"))).contains("k1", "k2", "k3", "k4");
    }

    private Process waiting(int number) throws Exception {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Dverbale.root=" + root,
                        "-Dverbale.run=shared",
                        "-cp",
                        String.join(File.pathSeparator, Launched.classPath()),
                        Forks.class.getName(),
                        String.valueOf(number),
                        "passes",
                        "waits")
                .redirectErrorStream(true)
                .start();
    }

    private static void awaitRecorded(Process jvm) throws Exception {
        var seen = new StringBuilder();
        for (int c;
                !seen.toString().contains(Launched.COUNTS)
                        && (c = jvm.getInputStream().read()) >= 0; ) seen.append((char) c);
    }

    private static void end(Process jvm) throws Exception {
        try (OutputStream in = jvm.getOutputStream()) {
            in.write("\n".getBytes(StandardCharsets.UTF_8));
        }
        jvm.getInputStream().readAllBytes();
        jvm.waitFor();
    }
}
