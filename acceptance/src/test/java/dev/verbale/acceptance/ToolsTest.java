package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.Jvm;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the build needs is checked by its version before a build starts. */
@DisabledOnOs(OS.WINDOWS)
class ToolsTest {

    @TempDir
    Path folder;

    @Test
    void those_of_this_machine_are_new_enough() throws Exception {
        Jvm tools = tools(System.getenv("PATH"));

        assertThat(tools.code()).as(tools.output()).isZero();
        assertThat(tools.output()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "node | v18.20.4                            | Node.js 18.20.4 is too old: install Node.js 20 or newer.",
                "mvn  | 3.6.3                               | Maven 3.6.3 is too old: install Maven 3.8 or newer.",
                "java | openjdk version \"11.0.22\" 2024-01 | JDK 11.0.22 is too old: install JDK 17 or newer.",
                "npm  | 8.1.0                               | npm 8.1.0 is too old: install npm 9 or newer.",
                "npm  |                                     | npm is missing: install npm 9 or newer."
            })
    void one_that_is_too_old_is_named_with_what_to_install(String tool, String says, String complaint)
            throws Exception {
        Path program =
                Files.writeString(folder.resolve(tool), "#!/bin/sh\necho '" + (says == null ? "" : says) + "'\n");
        assertThat(program.toFile().setExecutable(true)).isTrue();

        Jvm tools = tools(folder + ":" + System.getenv("PATH"));

        assertThat(tools.code()).as(tools.output()).isEqualTo(2);
        assertThat(tools.output().strip()).isEqualTo(complaint);
    }

    /** Nobody would miss a method that is never run. */
    @Test
    void what_is_left_to_the_night_is_a_test() throws Exception {
        int seen = 0;
        for (Path file : Checkout.files()) {
            if (!file.toString().endsWith("Test.java")) continue;
            List<String> lines = Files.readAllLines(file);
            for (int at = 0; at < lines.size(); at++) {
                if (!lines.get(at).startsWith("    @ByNight")) continue;
                seen++;
                assertThat(annotationsAt(lines, at))
                        .as("%s, line %d", file, at + 1)
                        .containsPattern("@(Test|ParameterizedTest)");
            }
        }
        assertThat(seen).isGreaterThan(10);
    }

    private static String annotationsAt(List<String> lines, int line) {
        int from = line;
        while (lines.get(from - 1).startsWith("    @")) from--;
        int to = line + 1;
        while (lines.get(to).startsWith("    @")) to++;
        return String.join("", lines.subList(from, to));
    }

    @Test
    void where_the_time_of_a_build_went_is_told_from_its_own_output() throws Exception {
        Path log = Files.writeString(folder.resolve("build.log"), """
                23:59:00.000 [main] [INFO] ----< dev.verbale:verbale-format >----
                23:59:01.000 [main] [INFO] --- maven-compiler-plugin:3.16.0:compile (default-compile) @ verbale-format ---
                23:59:31.000 [main] [INFO] --- maven-surefire-plugin:3.6.1:test (default-test) @ verbale-format ---
                00:00:20.000 [Thread-1] [INFO] Tests run: 7, Failures: 0, Errors: 0, Skipped: 0, Time elapsed: 40.5 s -- in dev.verbale.BedTest
                00:00:30.000 [main] [INFO] Tests run: 7, Failures: 0, Errors: 0, Skipped: 0
                00:00:31.000 [main] [INFO] Reactor Summary for Verbale 0.2.0:
                """);

        Jvm times = Jvm.run(
                Map.of(),
                folder,
                List.of("node", Checkout.ROOT.resolve("bin/times").toString(), log.toString()));

        assertThat(times.code()).as(times.output()).isZero();
        assertThat(times.output())
                .contains(
                        "1:31, 7 tests", "1:30  verbale-format", "0:30  compiler:compile", "0:41  dev.verbale.BedTest");
        Jvm none = Jvm.run(
                Map.of(),
                folder,
                List.of("node", Checkout.ROOT.resolve("bin/times").toString()));
        assertThat(none.code()).isEqualTo(2);
        assertThat(none.output()).contains("Run bin/test first");
    }

    /** Each of the builds that {@code bin/test} starts, told by what its command line holds. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "test   | -DskipTests             | 1",
                "test   | -pl acceptance          | 1",
                "test   | -pl report              | 1",
                "test   | -pl !acceptance         | 1",
                "test   | surefire:test@junit-6   | 1",
                "test   | -Dgroups=newer-jdk      | 1",
                "test   | nothing that is started | 0",
                "test   | surefire:test@junit-5   | 0",
                "matrix | surefire:test@junit-5   | 1",
                "matrix | -DskipTests -Pmatrix    | 1",
                "matrix | -pl recorder,adapters/  | 1",
                "matrix | nothing that is started | 0"
            })
    void whichever_build_of_the_tests_fails_all_of_them_are_red(String script, String failing, int code)
            throws Exception {
        Checkout.copy(Checkout.ROOT.resolve("bin"), folder.resolve("bin"));
        for (String pom : List.of("pom.xml", "adapters/junit/pom.xml")) {
            Files.createDirectories(folder.resolve(pom).getParent());
            Files.copy(Checkout.ROOT.resolve(pom), folder.resolve(pom));
        }
        for (String installing : List.of("tools", "browser", "database", "storage")) program("bin/" + installing, "");
        program("bin/newer-jdk", "echo '" + System.getProperty("java.home") + "'");
        program("path/javac", "");
        program("path/mvn", "case \"$*\" in *'" + failing + "'*) exit 1;; esac");

        Jvm tests = Jvm.run(
                Map.of("PATH", folder.resolve("path") + ":" + System.getenv("PATH")),
                folder,
                List.of("bash", folder.resolve("bin").resolve(script).toString()));

        assertThat(tests.code()).as(tests.output()).isEqualTo(code);
    }

    private void program(String name, String does) throws Exception {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, "#!/bin/sh\n" + does + "\n");
        assertThat(file.toFile().setExecutable(true)).isTrue();
    }

    private Jvm tools(String path) throws Exception {
        return Jvm.run(
                Map.of("PATH", path),
                folder,
                List.of("bash", Checkout.ROOT.resolve("bin/tools").toString()));
    }
}
