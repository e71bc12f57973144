package dev.verbale.ci;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What jobs are known by, as the CI systems document their variables. */
class CiSystemTest {

    @Test
    void a_job_is_known_by_its_documented_variables_and_nothing_else_of_the_environment() {
        Map<String, String> environment = variables(
                "GITHUB_ACTIONS=true GITHUB_WORKFLOW=nightly GITHUB_RUN_NUMBER=17 GITHUB_SERVER_URL=https://git.example"
                        + " GITHUB_REPOSITORY=orto/garden GITHUB_RUN_ID=99 GITHUB_SHA=3f09a1c2 GITHUB_ACTOR=ada"
                        + " GITHUB_REF=refs/pull/7/merge DEPLOY_KEY=hunter2");

        assertThat(CiSystem.of(environment).orElseThrow().facts(environment))
                .containsExactly(
                        Map.entry("CI job", "nightly"),
                        Map.entry("CI number", "17"),
                        Map.entry("CI link", "https://git.example/orto/garden/actions/runs/99"),
                        Map.entry("commit", "3f09a1c2"),
                        Map.entry("commit link", "https://git.example/orto/garden/commit/3f09a1c2"),
                        Map.entry("pull request", "7"),
                        Map.entry("asked by", "ada"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GITHUB_ACTIONS=true GITHUB_REF_NAME=main GITHUB_REF=refs/heads/7 | main | | '' |",
                "GITHUB_ACTIONS=true GITHUB_REF_NAME=7/merge GITHUB_REF=refs/pull/7/merge GITHUB_HEAD_REF=rota GITHUB_BASE_REF=main | rota | main | '' | 7",
                "GITLAB_CI=1 CI_COMMIT_REF_NAME=rota CI_NODE_INDEX=2 CI_NODE_TOTAL=4 | rota | | 2 of 4 |",
                "GITLAB_CI=1 CI_MERGE_REQUEST_IID=31 | | | '' | 31",
                "JENKINS_URL=u GIT_BRANCH=origin/rota CHANGE_TARGET=main CHANGE_ID=12 | rota | main | '' | 12",
                "CIRCLECI=true CIRCLE_BRANCH=rota CIRCLE_NODE_INDEX=0 CIRCLE_NODE_TOTAL=2 | rota | | 1 of 2 |",
                "CIRCLECI=true CIRCLE_PULL_REQUEST=https://git.example/orto/garden/pull/44 | | | '' | 44",
                "BUILDKITE=1 BUILDKITE_BRANCH=rota BUILDKITE_PARALLEL_JOB=1 BUILDKITE_PARALLEL_JOB_COUNT=2 BUILDKITE_PULL_REQUEST=false | rota | | 2 of 2 |",
                "TRAVIS=true TRAVIS_BRANCH=main TRAVIS_PULL_REQUEST=false | main | | '' |",
                "BITBUCKET_BUILD_NUMBER=3 BITBUCKET_BRANCH=rota BITBUCKET_PARALLEL_STEP=0 BITBUCKET_PARALLEL_STEP_COUNT=3 | rota | | 1 of 3 |",
                "TF_BUILD=1 BUILD_SOURCEBRANCH=refs/heads/rota SYSTEM_TOTALJOBSINPHASE=1 SYSTEM_JOBPOSITIONINPHASE=1 | rota | | '' |",
                "GITLAB_CI=1 CI_NODE_INDEX=x CI_NODE_TOTAL=4 | | | '' |"
            })
    void a_branch_a_shard_and_a_change_are_known_by_the_job(
            String variables, String branch, String target, String shard, String request) {
        Map<String, String> environment = variables(variables);
        CiSystem system = CiSystem.of(environment).orElseThrow();

        Map<String, String> facts = system.facts(environment);

        assertThat(facts.get("branch")).isEqualTo(branch);
        assertThat(facts.get("target branch")).isEqualTo(target);
        assertThat(facts.get("pull request")).isEqualTo(request);
        assertThat(system.shard(environment)).isEqualTo(shard);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GITHUB_ACTIONS=true GITHUB_RUN_ID=1658821493 GITHUB_RUN_ATTEMPT=2 | build-1658821493-2",
                "GITHUB_ACTIONS=true GITHUB_RUN_ID=1658821493 | build-1658821493",
                "GITLAB_CI=true CI_PIPELINE_ID=47 | build-47",
                "JENKINS_URL=u BUILD_TAG=jenkins-orto%2Fmain-12 | build-jenkins-orto-2Fmain-12",
                "BUILDKITE=true BUILDKITE_PIPELINE_SLUG=orto BUILDKITE_BUILD_NUMBER=8 | build-orto-8",
                "CIRCLECI=true CIRCLE_WORKFLOW_ID=0c2c1f | build-0c2c1f",
                "BITBUCKET_BUILD_NUMBER=12 | build-12",
                "TEAMCITY_VERSION=1 TEAMCITY_BUILDCONF_NAME=Orto/all BUILD_NUMBER=3 | build-Orto-all-3",
                "TF_BUILD=True BUILD_BUILDID=20261201.4 | build-20261201.4",
                "GITHUB_ACTIONS=true GITHUB_RUN_ID=../../../etc | build-..-..-..-etc",
                "GITHUB_ACTIONS=true GITHUB_RUN_ID=... | build",
                "GITHUB_ACTIONS=true GITHUB_RUN_ID=<script> | build--script",
                "GITLAB_CI=true CI_PIPELINE_ID= | ",
                "GITHUB_ACTIONS=true GITHUB_RUN_ATTEMPT=1 | ",
                "CI_PIPELINE_ID=47 | ",
                "CI=true | "
            })
    void a_build_has_a_name_that_a_folder_and_an_address_can_have(String variables, String name) {
        assertThat(CiSystem.buildOf(variables(variables)).orElse(null)).isEqualTo(name);
        if (name != null)
            assertThat(name).matches("[A-Za-z0-9][A-Za-z0-9._-]{0,99}").doesNotEndWith(".");
    }

    @Test
    void a_long_name_of_a_build_keeps_what_tells_builds_from_each_other() {
        Map<String, String> environment = new HashMap<>(Map.of("JENKINS_URL", "u"));
        environment.put("BUILD_TAG", "folder/".repeat(60) + "orto-4711");

        assertThat(CiSystem.buildOf(environment).orElseThrow())
                .startsWith("build-")
                .endsWith("orto-4711")
                .hasSize(100);
    }

    @Test
    void all_that_is_looked_at_is_listed() {
        assertThat(everything().keySet()).contains("CIRCLE_SHA1");
        for (CiSystem system : CiSystem.ALL)
            assertThat(system.facts(everything()).values()).as(system.name()).noneMatch(value -> value.contains("{"));
        assertThat(CiSystem.variables()).contains("GITHUB_ACTIONS", "CI_NODE_TOTAL", "SYSTEM_TEAMPROJECT", "BUILD_TAG");
        for (CiSystem system : CiSystem.ALL)
            for (String fact : system.facts(everything()).keySet())
                assertThat(system.templates(fact))
                        .as(system.name() + " " + fact)
                        .isNotEmpty();
    }

    private static Map<String, String> everything() {
        Map<String, String> all = new HashMap<>();
        CiSystem.variables().forEach(variable -> all.put(variable, "7"));
        return all;
    }

    private static Map<String, String> variables(String text) {
        Map<String, String> variables = new LinkedHashMap<>();
        for (String variable : text.split(" "))
            variables.put(variable.replaceFirst("=.*", ""), variable.replaceFirst(".*?=", ""));
        return variables;
    }
}
