package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

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

    private Jvm tools(String path) throws Exception {
        return Jvm.run(
                Map.of("PATH", path),
                folder,
                List.of("bash", Checkout.ROOT.resolve("bin/tools").toString()));
    }
}
