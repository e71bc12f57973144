package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByDay;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.testing.Jvm;
import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The artifacts are modules, and their engines are closed. */
class ModulePathTest {

    private static final Path HERE = Path.of("").toAbsolutePath();

    @Test
    void the_command_line_runs_from_the_module_path() throws Exception {
        Jvm verbale = Jvm.bareJava(
                Map.of(), HERE, "-p", modulePath(), "-m", "dev.verbale.cli/dev.verbale.cli.Main", "--version");

        assertThat(verbale.code()).as(verbale.output()).isZero();
        assertThat(verbale.output()).startsWith("Verbale " + System.getProperty("tested.version"));
    }

    @Test
    void the_recorder_opens_its_faces_and_keeps_its_engine_to_itself() throws Exception {
        Jvm described = Jvm.bareJava(Map.of(), HERE, "-p", modulePath(), "--describe-module", "dev.verbale.recorder");

        assertThat(described.output())
                .contains("exports dev.verbale\n", "exports dev.verbale.spi", "exports dev.verbale.jul")
                .contains("contains dev.verbale.engine")
                .doesNotContain("exports dev.verbale.engine");
    }

    @Test
    void the_adapters_are_modules_that_resolve() throws Exception {
        Jvm resolved = Jvm.bareJava(
                Map.of(),
                HERE,
                "-p",
                modulePath(),
                "--add-modules",
                "dev.verbale.junit,dev.verbale.selenium,org.junit.platform.launcher,org.junit.jupiter.api",
                "--validate-modules");

        assertThat(resolved.code()).as(resolved.output()).isZero();
    }

    static Stream<String> adapters() {
        return ByDay.everyFourth(List.of(
                "junit",
                "assertj",
                "steps",
                "awaitility",
                "logback",
                "log4j",
                "http",
                "restassured",
                "httpclient5",
                "okhttp",
                "contract",
                "spring",
                "selenium",
                "playwright",
                "video"));
    }

    /** Resolving is not enough: a package that is not open shows when its first class is used. */
    @ParameterizedTest
    @MethodSource("adapters")
    void every_adapter_works_from_the_module_path(String adapter, @TempDir Path root) throws Exception {
        String modules = Jvm.classPathEntries().stream()
                .map(Path::toString)
                .filter(entry -> entry.matches(MODULES))
                .collect(Collectors.joining(File.pathSeparator));
        String others = Jvm.classPathEntries().stream()
                .map(Path::toString)
                .filter(entry -> !entry.matches(MODULES))
                .collect(Collectors.joining(File.pathSeparator));

        Jvm driven = Jvm.bareJava(
                Map.of(),
                HERE,
                "-Dverbale.root=" + root,
                "-Dverbale.video=all",
                "-p",
                modules,
                "--add-modules",
                "ALL-MODULE-PATH",
                "-cp",
                others,
                Driven.class.getName(),
                adapter);

        assertThat(driven.code()).as(driven.output()).isZero();
        assertThat(driven.output()).doesNotContain("Error:", "records nothing");
        Run run = RunReader.read(root);
        assertThat(run.tests())
                .singleElement()
                .satisfies(
                        test -> assertThat(test.entries()).as(driven.output()).isNotEmpty());
        try (Stream<Path> files = Files.walk(root)) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                assertThat(Files.readString(file, StandardCharsets.ISO_8859_1)).doesNotContain("hunter2");
        }
    }

    private static final String MODULES =
            ".*(verbale-(?!example|acceptance|cli|report|viewer|sending|packing|publishing|messages|hub|export|har|history|rules|query|lake|changes|otlp|results)|/(format|secrets|recorder|adapters/[a-z0-9]+)/target|jackson-core-3|jspecify|junit-(platform|jupiter)"
                    + "|opentest4j|apiguardian)(?!.*console).*";

    private static String modulePath() {
        return Jvm.classPathEntries().stream()
                .filter(
                        entry -> entry.toString()
                                .matches(
                                        ".*(verbale-(?!example|acceptance)|/(format|secrets|recorder|junit|selenium|results|export|har|history|rules|query|lake|changes|otlp|report|viewer|sending|packing|publishing|messages|hub|cli)/target"
                                                + "|jackson-core-3|jackson-databind-3|jackson-annotations|hipparchus|jsoup|commons-csv|jdbi|geantyref|slf4j-api|/h2-|classgraph|opentelemetry|jackson-core-2|jackson-databind-2|postgresql|commons-io|commons-codec|snakeyaml|picocli|angus-|jakarta.mail|jakarta.activation|jmustache|junit-(platform|jupiter-api)|opentest4j|apiguardian).*"))
                .filter(entry -> !entry.toString().contains("console"))
                .filter(entry -> !entry.toString().endsWith("-tests.jar"))
                .map(Path::toString)
                .collect(Collectors.joining(File.pathSeparator));
    }
}
