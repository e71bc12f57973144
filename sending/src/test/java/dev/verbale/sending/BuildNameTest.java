package dev.verbale.sending;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a run is called after the build that made it. */
class BuildNameTest {

    @ParameterizedTest
    @CsvSource({
        "GITHUB_RUN_ID, 1658821493, GITHUB_RUN_ATTEMPT, 2, build-1658821493-2",
        "GITHUB_RUN_ID, 1658821493, X, , build-1658821493",
        "CI_PIPELINE_ID, 47, X, , build-47",
        "BUILD_TAG, jenkins-orto%2Fmain-12, X, , build-jenkins-orto-2Fmain-12",
        "BUILDKITE_PIPELINE_SLUG, orto, BUILDKITE_BUILD_NUMBER, 8, build-orto-8",
        "CIRCLE_WORKFLOW_ID, 0c2c1f, X, , build-0c2c1f",
        "TEAMCITY_BUILDCONF_NAME, Orto / all tests, BUILD_NUMBER, 3, build-Orto-all-tests-3",
        "BUILD_BUILDID, 20261201.4, X, , build-20261201.4",
        "GITHUB_RUN_ID, ../../../etc, X, , build-..-..-..-etc",
        "GITHUB_RUN_ID, ..., X, , build",
        "GITHUB_RUN_ID, <script>, X, , build--script",
        "CI_PIPELINE_ID, '   ', X, , ",
        "GITHUB_RUN_ATTEMPT, 1, X, , ",
        "CI, true, X, , "
    })
    void it_is_the_builds(String one, String value, String other, String otherValue, String name) {
        assertThat(BuildName.of(Map.of(one, value, other, otherValue == null ? "" : otherValue))
                        .orElse(null))
                .isEqualTo(name);
        if (name != null) assertThat(SendOptions.named("run", name)).isEqualTo(name);
    }

    @ParameterizedTest
    @CsvSource({"BUILD_TAG", "GITHUB_RUN_ID"})
    void a_long_one_keeps_what_tells_builds_from_each_other(String variable) {
        String name = BuildName.of(Map.of(variable, "folder/".repeat(60) + "orto-4711"))
                .orElseThrow();

        assertThat(SendOptions.named("run", name))
                .startsWith("build-")
                .endsWith("orto-4711")
                .hasSize(100);
    }
}
