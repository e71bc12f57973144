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
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is known of the commit and the CI job, read from files and variables as git and the CI systems document them. */
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
    void a_ci_job_is_told_by_its_documented_variables_and_nothing_else_of_the_environment() {
        CiFacts.gather(
                Map.of(
                        "GITHUB_ACTIONS", "true",
                        "GITHUB_WORKFLOW", "nightly",
                        "GITHUB_RUN_NUMBER", "17",
                        "GITHUB_SERVER_URL", "https://git.example",
                        "GITHUB_REPOSITORY", "orto/garden",
                        "GITHUB_RUN_ID", "99",
                        "DEPLOY_KEY", "hunter2"),
                facts);

        assertThat(facts)
                .containsExactly(
                        Map.entry("CI job", "nightly"),
                        Map.entry("CI number", "17"),
                        Map.entry("CI link", "https://git.example/orto/garden/actions/runs/99"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GITHUB_ACTIONS=true GITHUB_REF_NAME=main | main | | ''",
                "GITHUB_ACTIONS=true GITHUB_REF_NAME=7/merge GITHUB_HEAD_REF=rota GITHUB_BASE_REF=main | rota | main | ''",
                "GITLAB_CI=1 CI_COMMIT_REF_NAME=rota CI_NODE_INDEX=2 CI_NODE_TOTAL=4 | rota | | 2 of 4",
                "JENKINS_URL=u GIT_BRANCH=origin/rota CHANGE_TARGET=main | rota | main | ''",
                "CIRCLECI=true CIRCLE_BRANCH=rota CIRCLE_NODE_INDEX=0 CIRCLE_NODE_TOTAL=2 | rota | | 1 of 2",
                "BUILDKITE=1 BUILDKITE_BRANCH=rota BUILDKITE_PARALLEL_JOB=1 BUILDKITE_PARALLEL_JOB_COUNT=2 | rota | | 2 of 2",
                "TF_BUILD=1 BUILD_SOURCEBRANCH=refs/heads/rota SYSTEM_TOTALJOBSINPHASE=1 SYSTEM_JOBPOSITIONINPHASE=1 | rota | | ''",
                "GITLAB_CI=1 CI_NODE_INDEX=x CI_NODE_TOTAL=4 | | | ''",
                "CI_NODE_INDEX=1 CI_NODE_TOTAL=4 | | | ''"
            })
    void a_branch_and_a_shard_are_told_by_the_job(String variables, String branch, String target, String shard) {
        Map<String, String> environment = new LinkedHashMap<>();
        for (String variable : variables.split(" "))
            environment.put(variable.replaceFirst("=.*", ""), variable.replaceFirst(".*?=", ""));

        CiFacts.gather(environment, facts);

        assertThat(facts.get("branch")).isEqualTo(branch);
        assertThat(facts.get("target branch")).isEqualTo(target);
        assertThat(CiFacts.shard(environment)).isEqualTo(shard);
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
