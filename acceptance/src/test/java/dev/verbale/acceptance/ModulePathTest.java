package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

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
                .contains("exports dev.verbale\n", "exports dev.verbale.evidence", "exports dev.verbale.recorder")
                .contains("contains dev.verbale.internal")
                .doesNotContain("exports dev.verbale.internal");
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

    private static String modulePath() {
        return Jvm.classPathEntries().stream()
                .filter(
                        entry -> entry.toString()
                                .matches(
                                        ".*(verbale-(?!example|acceptance)|/(format|recorder|junit|selenium|results|har|report|cli)/target"
                                                + "|jackson-core-3|jackson-databind-3|jackson-annotations|picocli|junit-(platform|jupiter-api)|opentest4j|apiguardian).*"))
                .filter(entry -> !entry.toString().contains("console"))
                .map(Path::toString)
                .collect(Collectors.joining(File.pathSeparator));
    }
}
