package dev.verbale.engine.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.DeflaterOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is known of the commit, read from files as git documents them, and by whom it is known better. */
class FactsTest {

    private static final String COMMIT = "0123456789abcdef0123456789abcdef01234567";

    @TempDir
    Path folder;

    private final Map<String, String> facts = new LinkedHashMap<>();

    @Test
    void a_branch_and_its_commit_are_told_from_any_folder_below() throws Exception {
        repository("ref: refs/heads/feature/rota\n");
        write("refs/heads/feature/rota", COMMIT + "\n");
        Path object = folder.resolve(".git/objects/01/23456789abcdef0123456789abcdef01234567");
        Files.createDirectories(object.getParent());
        try (OutputStream out = new DeflaterOutputStream(Files.newOutputStream(object))) {
            out.write("commit 99\0tree 12\nauthor Ada <ada@orto.example> 1 +0000\n\nWater the beans\n\nAt last.\n"
                    .getBytes(StandardCharsets.UTF_8));
        }

        GitFacts.gather(Files.createDirectories(folder.resolve("modules/shed")), facts);

        assertThat(facts)
                .containsEntry("branch", "feature/rota")
                .containsEntry("commit", COMMIT)
                .containsEntry("author", "Ada")
                .containsEntry("subject", "Water the beans");
    }

    @Test
    void packed_branches_and_detached_commits_are_told_too() throws Exception {
        repository("ref: refs/heads/main\n");
        write("packed-refs", "# pack-refs with: peeled\n" + COMMIT + " refs/heads/main\n");
        GitFacts.gather(folder, facts);
        assertThat(facts).containsEntry("branch", "main").containsEntry("commit", COMMIT);

        facts.clear();
        write("HEAD", COMMIT + "\n");
        GitFacts.gather(folder, facts);
        assertThat(facts).containsOnlyKeys("commit");
    }

    @Test
    void an_odd_repository_or_none_costs_its_facts_and_nothing_else() throws Exception {
        GitFacts.gather(folder, facts);
        repository("\0\0 not a reference");
        GitFacts.gather(folder, facts);

        assertThat(facts).doesNotContainKeys("branch", "author", "subject");
    }

    @Test
    void a_job_knows_its_branch_better_than_its_working_tree_and_its_commit_less_well() {
        facts.put("commit", COMMIT);
        facts.put("branch", "whatever is checked out");

        RunFacts.addCi(
                Map.of("GITLAB_CI", "true", "CI_COMMIT_SHA", "f".repeat(40), "CI_COMMIT_REF_NAME", "rota"), facts);

        assertThat(facts).containsExactly(Map.entry("commit", COMMIT), Map.entry("branch", "rota"));
    }

    private void repository(String head) throws Exception {
        Files.createDirectories(folder.resolve(".git"));
        write("HEAD", head);
    }

    private void write(String name, String content) throws Exception {
        Path file = folder.resolve(".git").resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, content);
    }
}
