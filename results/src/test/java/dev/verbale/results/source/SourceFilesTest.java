package dev.verbale.results.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SourceFilesTest {

    @TempDir
    Path root;

    private Path write(String file, String text) throws IOException {
        Path path = root.resolve(file);
        Files.createDirectories(path.getParent());
        return Files.writeString(path, text);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "dev.orto.RotaTest.swaps(RotaTest.java:3)",
                "\tat dev.orto.RotaTest.swaps(RotaTest.java:3)",
                "\tat app//dev.orto.RotaTest$Days.lambda$swaps$0(RotaTest.java:3)",
                "\tat dev.orto/dev.orto.RotaTest.<init>(RotaTest.java:3)"
            })
    void a_frame_leads_to_the_lines_around_its_own(String frame) throws Exception {
        Path file = write("a/src/test/java/dev/orto/RotaTest.java", "1\n2\n3\n4\n5\n6\n7\n8\n9\n");
        write("b/src/test/java/dev/other/RotaTest.java", "other");

        SourceSnippet found = SourceFiles.below(List.of(root)).around(frame);

        assertThat(found).isEqualTo(new SourceSnippet(file, 3, 1, List.of("1", "2", "3", "4", "5", "6", "7")));
    }

    @Test
    void two_files_that_could_be_it_are_none_and_what_a_build_wrote_counts_for_nothing() throws Exception {
        write("a/src/dev/orto/RotaTest.java", "a\n");
        write("a/target/dev/orto/RotaTest.java", "b\n");
        write(".git/dev/orto/RotaTest.java", "c\n");
        String frame = "dev.orto.RotaTest.swaps(RotaTest.java:1)";
        assertThat(SourceFiles.below(List.of(root)).around(frame)).isNotNull();

        write("b/src/dev/orto/RotaTest.java", "d\n");
        assertThat(SourceFiles.below(List.of(root)).around(frame)).isNull();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "dev.orto.RotaTest.swaps(RotaTest.java:0)",
                "dev.orto.RotaTest.swaps(RotaTest.java:99)",
                "dev.orto.RotaTest.swaps(RotaTest.java:99999999999999)",
                "dev.orto.RotaTest.swaps(Native Method)",
                "dev.orto.RotaTest.swaps(../../../etc/passwd.java:1)",
                "\0"
            })
    void what_leads_nowhere_is_nothing(String frame) throws Exception {
        write("src/dev/orto/RotaTest.java", "a\n");

        assertThat(SourceFiles.below(List.of(root)).around(frame)).isNull();
    }

    @Test
    void a_link_is_not_followed_and_a_folder_that_is_not_there_is_said() throws Exception {
        Path secret = Files.writeString(
                Files.createDirectory(root.resolve("elsewhere")).resolve("RotaTest.java"), "secret\n");
        Path project = Files.createDirectory(root.resolve("project"));
        Files.createSymbolicLink(project.resolve("RotaTest.java"), secret);

        assertThat(SourceFiles.below(List.of(project)).around("RotaTest.swaps(RotaTest.java:1)"))
                .isNull();
        assertThatThrownBy(() -> SourceFiles.below(List.of(root.resolve("none"))))
                .isInstanceOf(NoSuchFileException.class);
    }
}
