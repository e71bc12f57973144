package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.join.RunJoiner;
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
        String classPath = folder.resolve("target/test-classes") + java.io.File.pathSeparator + Jvm.classPath();
        Jvm.run(Map.of("CLASSPATH", classPath), folder, List.of("sh", "-c", command));
    }

    @Test
    @ByNight // by day TestNG and Cucumber run again what failed, by their own tests
    void the_junit_console_runs_what_failed_and_nothing_else() throws Exception {
        compile("BedsTest", SUITE);
        shell("java org.junit.platform.console.ConsoleLauncher execute --select-class=sample.BedsTest");
        assertThat(newest().counts().all()).isEqualTo(6);

        Jvm printed = Jvm.java(Map.of(), folder, "dev.verbale.cli.Main", "rerun", "--for", "junit");
        shell(printed.output());

        assertThat(newest().tests())
                .extracting(TestResult::methodName)
                .containsExactlyInAnyOrder("growsAgain", "waters", "waters", "sprouts");
    }

    /** A nested class goes with the one around it, and a machine that was not there is missed. */
    @Test
    @ByNight // by day plans are tested without machines
    void machines_that_run_what_was_planned_for_them_run_all_of_it_once() throws Exception {
        compile("BedsTest", SUITE);
        compile("ShedTest", SUITE.replace("BedsTest", "ShedTest"));
        Jvm planned = Jvm.java(
                Map.of(),
                folder,
                "dev.verbale.cli.Main",
                "rerun",
                "--shards",
                "2",
                "--for",
                "junit",
                "--history",
                "none");
        List<String> commands = planned.output()
                .lines()
                .filter(line -> line.startsWith("java "))
                .toList();
        assertThat(commands).as(planned.output()).hasSize(2);

        List<Path> shards = new ArrayList<>();
        for (String command : commands) {
            shell(command);
            shards.add(Files.move(folder.resolve("target/verbale"), folder.resolve("shard" + shards.size())));
        }
        RunJoiner.join(shards, folder.resolve("target/verbale/all"));
        RunJoiner.join(shards.subList(0, 1), folder.resolve("half"));

        Run all = newest();
        assertThat(all.tests()).hasSize(12).allMatch(test -> !test.superseded());
        assertThat(RunPart.of(all.facts())).isEmpty();
        assertThat(all.incomplete().isNothing()).isTrue();
        assertThat(RunReader.read(folder.resolve("half")).incomplete().absentShards())
                .containsExactly("2 of 2");
    }

    private void compile(String name, String suite) throws Exception {
        Path source = Files.writeString(folder.resolve(name + ".java"), suite);
        List<String> arguments = new ArrayList<>(List.of(
                "-proc:none",
                "-cp",
                Jvm.classPath(),
                "-d",
                folder.resolve("target/test-classes").toString()));
        arguments.add(source.toString());
        assertThat(ToolProvider.getSystemJavaCompiler().run(null, null, null, arguments.toArray(String[]::new)))
                .isZero();
    }
}
