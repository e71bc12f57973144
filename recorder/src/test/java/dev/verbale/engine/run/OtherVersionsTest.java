package dev.verbale.engine.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class OtherVersionsTest {

    @TempDir
    Path other;

    @Test
    void a_second_version_of_the_recorder_is_noticed_and_a_second_copy_is_none() throws Exception {
        Path file = other.resolve("dev/verbale/engine/run/version.properties");
        Files.createDirectories(file.getParent());
        Files.writeString(file, "version=" + Version.text());
        try (var loader =
                new URLClassLoader(new URL[] {other.toUri().toURL()}, getClass().getClassLoader())) {
            assertThat(OtherVersions.ofRecorder(loader)).isEmpty();

            Files.writeString(file, "version=0.1.9");

            assertThat(OtherVersions.ofRecorder(loader))
                    .hasValueSatisfying(problem -> assertThat(problem)
                            .startsWith("Verbale's recorder is on the class path in 2 versions: {0.1.9=file:")
                            .endsWith("Take all of them from one version, as with verbale-bom"));
        }
        assertThat(OtherVersions.ofRecorder(null)).isEmpty();
    }

    @Test
    void an_adapter_of_another_version_is_noticed_where_it_says_its_version() {
        assertThat(OtherVersions.differing("dev.verbale.junit.JUnitAdapter", "0.1.9", "0.2.0"))
                .hasValue(
                        "the adapter dev.verbale.junit.JUnitAdapter is of version 0.1.9 and Verbale's recorder of 0.2.0. "
                                + "Take all of them from one version, as with verbale-bom");
        assertThat(OtherVersions.differing("dev.verbale.junit.JUnitAdapter", "0.2.0", "0.2.0"))
                .isEmpty();
        assertThat(OtherVersions.differing("dev.verbale.junit.JUnitAdapter", null, "0.2.0"))
                .isEmpty();
        assertThat(OtherVersions.ofAdapter(OtherVersionsTest.class)).isEmpty();
        assertThat(OtherVersions.ofAdapter(String.class)).isEmpty();
    }
}
