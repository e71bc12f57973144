package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What {@code verbale rerun} prints, pasted into a shell. */
class RerunTest {

    private static final String SUITE = """
            package sample;
            import static org.junit.jupiter.api.Assertions.assertEquals;
            import org.junit.jupiter.api.*;
            import org.junit.jupiter.params.ParameterizedTest;
            import org.junit.jupiter.params.provider.ValueSource;
            class BedsTest {
                @Test void grows() { }
                @Test void growsAgain() { assertEquals(1, 2); }
                @ParameterizedTest @ValueSource(ints = {1, 2}) void waters(int bed) { assertEquals(1, bed); }
                @Nested class InSpring {
                    @Test void sprouts() { assertEquals(1, 2); }
                    @Test void rests() { }
                }
            }
            """;

    @TempDir
    Path folder;

    private Run newest() throws Exception {
        return RunReader.read(folder.resolve("target/verbale"));
    }

    private void shell(String command) throws Exception {
        String classPath = folder.resolve("classes") + java.io.File.pathSeparator + Jvm.classPath();
        Jvm.run(Map.of("CLASSPATH", classPath), folder, List.of("sh", "-c", command));
    }

    @Test
    @ByNight // by day TestNG and Cucumber run again what failed, by their own tests
    void the_junit_console_runs_what_failed_and_nothing_else() throws Exception {
        Path source = Files.writeString(folder.resolve("BedsTest.java"), SUITE);
        List<String> arguments = new ArrayList<>(List.of(
                "-proc:none",
                "-cp",
                Jvm.classPath(),
                "-d",
                folder.resolve("classes").toString()));
        arguments.add(source.toString());
        assertThat(ToolProvider.getSystemJavaCompiler().run(null, null, null, arguments.toArray(String[]::new)))
                .isZero();
        shell("java org.junit.platform.console.ConsoleLauncher execute --select-class=sample.BedsTest");
        assertThat(newest().counts().all()).isEqualTo(6);

        Jvm printed = Jvm.java(Map.of(), folder, "dev.verbale.cli.Main", "rerun", "--for", "junit");
        shell(printed.output());

        assertThat(newest().tests())
                .extracting(TestResult::methodName)
                .containsExactlyInAnyOrder("growsAgain", "waters", "waters", "sprouts");
    }
}
