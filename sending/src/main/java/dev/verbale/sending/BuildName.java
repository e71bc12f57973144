package dev.verbale.sending;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a run is called on a hub where nobody says it: after the build of the CI system, which all jobs and machines of that build have in
 * common. By the variables that the systems document.
 *
 * @since 0.2.0
 */
public final class BuildName {

    private static final int LONGEST = 100;

    /** By system: which of several builds of one project it is, and which time it is tried, where that is another variable. */
    private static final List<List<String>> KNOWN = List.of(
            List.of("GITHUB_RUN_ID", "GITHUB_RUN_ATTEMPT"),
            List.of("CI_PIPELINE_ID"), // GitLab
            List.of("BUILD_TAG"), // Jenkins
            List.of("BUILDKITE_PIPELINE_SLUG", "BUILDKITE_BUILD_NUMBER"),
            List.of("CIRCLE_WORKFLOW_ID"),
            List.of("BITBUCKET_BUILD_NUMBER"),
            List.of("TRAVIS_BUILD_NUMBER"),
            List.of("TEAMCITY_BUILDCONF_NAME", "BUILD_NUMBER"),
            List.of("BUILD_BUILDID")); // Azure Pipelines

    private BuildName() {}

    /** A name that a hub can keep; empty where this is no build of a known system. */
    public static Optional<String> of(Map<String, String> environment) {
        for (List<String> variables : KNOWN) {
            List<String> values = variables.stream()
                    .map(variable -> environment.getOrDefault(variable, "").strip())
                    .filter(value -> !value.isEmpty())
                    .toList();
            if (environment.getOrDefault(variables.get(0), "").isBlank()) continue;
            String name = ("build-" + String.join("-", values)).replaceAll("[^A-Za-z0-9._-]+", "-");
            // What tells builds from each other is at the end.
            if (name.length() > LONGEST)
                name = "build-" + name.substring(name.length() - (LONGEST - "build-".length()));
            return Optional.of(name.replaceFirst("[.-]+$", ""));
        }
        return Optional.empty();
    }

    /** The variables that are looked at. */
    public static Set<String> variables() {
        Set<String> all = new TreeSet<>();
        KNOWN.forEach(all::addAll);
        return all;
    }
}
