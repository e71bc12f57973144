package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.Jvm;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The adapter of somebody else's, in a project of its own: what it needs is public, and in the jars. */
class AdapterExampleTest {

    private static final Path EXAMPLE = Checkout.ROOT.resolve("examples/adapter");

    @TempDir
    Path folder;

    @Test
    void it_builds_outside_this_project_and_its_tests_pass() throws Exception {
        Checkout.copy(EXAMPLE, folder);

        Jvm maven = SampleBuild.maven(folder, "-Dverbale.version=" + System.getProperty("tested.version"), "test");

        assertThat(maven.code()).as(maven.output()).isZero();
        assertThat(maven.output()).contains("Tests run: 4, Failures: 0, Errors: 0, Skipped: 0");
    }

    @Test
    void its_version_of_verbale_is_this_one() throws Exception {
        assertThat(Files.readString(EXAMPLE.resolve("pom.xml")))
                .contains("<verbale.version>" + System.getProperty("tested.version") + "</verbale.version>");
    }
}
