package dev.verbale.changes;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LastCommitsTest {

    @TempDir
    Path folder;

    @Test
    void those_that_touched_the_file_are_listed_the_newest_first() throws Exception {
        var project = new SmallProject(Files.createDirectory(folder.resolve("repository")));
        project.write("Seed.java", "1").commit();
        project.write("Rota.java", "1").commit();
        project.write("Seed.java", "lend two");
        project.git("commit", "-qam", "Lend two sachets");

        assertThat(LastCommits.of(project.folder.resolve("Seed.java"), 5))
                .satisfiesExactly(
                        last -> assertThat(last).matches("[0-9a-f]+ \\d{4}-\\d\\d-\\d\\d Ada: Lend two sachets"),
                        first -> assertThat(first).endsWith("Ada: Grow"));
        assertThat(LastCommits.of(project.folder.resolve("Seed.java"), 1)).hasSize(1);
    }

    @Test
    void where_nobody_knows_there_are_none() throws Exception {
        assertThat(LastCommits.of(Files.writeString(folder.resolve("Seed.java"), "1"), 5))
                .isEmpty();
        assertThat(LastCommits.of(folder.resolve("no/such/folder/Seed.java"), 5))
                .isEmpty();
    }
}
