package dev.verbale.engine.run;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Which CI job this is, from the variables that the common CI systems document. Nothing else of the environment. */
final class CiFacts {

    /**
     * One system's variables.
     *
     * @param sign the variable that is there on this system only
     * @param link a variable that holds the address, or addresses put together from several, as {@code {NAME}}
     */
    private record Variables(String sign, String job, String number, String link) {}

    private static final List<Variables> KNOWN = List.of(
            new Variables(
                    "GITHUB_ACTIONS",
                    "GITHUB_WORKFLOW",
                    "GITHUB_RUN_NUMBER",
                    "{GITHUB_SERVER_URL}/{GITHUB_REPOSITORY}/actions/runs/{GITHUB_RUN_ID}"),
            new Variables("GITLAB_CI", "CI_JOB_NAME", "CI_PIPELINE_IID", "{CI_JOB_URL}"),
            new Variables("JENKINS_URL", "JOB_NAME", "BUILD_NUMBER", "{BUILD_URL}"),
            new Variables("BUILDKITE", "BUILDKITE_PIPELINE_SLUG", "BUILDKITE_BUILD_NUMBER", "{BUILDKITE_BUILD_URL}"),
            new Variables("CIRCLECI", "CIRCLE_JOB", "CIRCLE_BUILD_NUM", "{CIRCLE_BUILD_URL}"),
            new Variables("TRAVIS", "TRAVIS_REPO_SLUG", "TRAVIS_BUILD_NUMBER", "{TRAVIS_BUILD_WEB_URL}"),
            new Variables("TEAMCITY_VERSION", "TEAMCITY_BUILDCONF_NAME", "BUILD_NUMBER", "{BUILD_URL}"),
            new Variables(
                    "TF_BUILD",
                    "BUILD_DEFINITIONNAME",
                    "BUILD_BUILDNUMBER",
                    "{SYSTEM_COLLECTIONURI}{SYSTEM_TEAMPROJECT}/_build/results?buildId={BUILD_BUILDID}"));

    private CiFacts() {}

    public static void gather(Map<String, String> environment, Map<String, String> facts) {
        for (Variables known : KNOWN) {
            if (!environment.containsKey(known.sign())) continue;
            put(facts, "CI job", environment.get(known.job()));
            put(facts, "CI number", environment.get(known.number()));
            put(facts, "CI link", link(known.link(), environment));
            return;
        }
    }

    private static @Nullable String link(String template, Map<String, String> environment) {
        String link = template;
        while (link.contains("{")) {
            String name = link.substring(link.indexOf('{') + 1, link.indexOf('}'));
            String value = environment.get(name);
            if (value == null) return null;
            link = link.replace("{" + name + "}", value);
        }
        return link;
    }

    private static void put(Map<String, String> facts, String name, @Nullable String value) {
        if (value != null && !value.isBlank()) facts.put(name, value);
    }
}
