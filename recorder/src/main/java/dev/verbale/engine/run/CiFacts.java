package dev.verbale.engine.run;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Which CI job this is, from the variables that the common CI systems document. Nothing else of the environment. */
final class CiFacts {

    /**
     * One system's variables. Where several are named with commas between, the first that is there counts.
     *
     * @param sign the variable that is there on this system only
     * @param link a variable that holds the address, or addresses put together from several, as {@code {NAME}}
     * @param branch that is tested; the working tree of a job is seldom on one
     * @param target the branch that it is going to be merged into, where the job tests a change
     * @param shard which of the parts of a job that runs several times side by side
     * @param shards how many there are
     * @param firstShard what the first one is called, 0 or 1
     */
    private record Variables(
            String sign,
            String job,
            String number,
            String link,
            String branch,
            String target,
            String shard,
            String shards,
            int firstShard) {}

    private static final List<Variables> KNOWN = List.of(
            new Variables(
                    "GITHUB_ACTIONS",
                    "GITHUB_WORKFLOW",
                    "GITHUB_RUN_NUMBER",
                    "{GITHUB_SERVER_URL}/{GITHUB_REPOSITORY}/actions/runs/{GITHUB_RUN_ID}",
                    "GITHUB_HEAD_REF,GITHUB_REF_NAME",
                    "GITHUB_BASE_REF",
                    "",
                    "",
                    1),
            new Variables(
                    "GITLAB_CI",
                    "CI_JOB_NAME",
                    "CI_PIPELINE_IID",
                    "{CI_JOB_URL}",
                    "CI_MERGE_REQUEST_SOURCE_BRANCH_NAME,CI_COMMIT_REF_NAME",
                    "CI_MERGE_REQUEST_TARGET_BRANCH_NAME",
                    "CI_NODE_INDEX",
                    "CI_NODE_TOTAL",
                    1),
            new Variables(
                    "JENKINS_URL",
                    "JOB_NAME",
                    "BUILD_NUMBER",
                    "{BUILD_URL}",
                    "CHANGE_BRANCH,BRANCH_NAME,GIT_LOCAL_BRANCH,GIT_BRANCH",
                    "CHANGE_TARGET",
                    "",
                    "",
                    1),
            new Variables(
                    "BUILDKITE",
                    "BUILDKITE_PIPELINE_SLUG",
                    "BUILDKITE_BUILD_NUMBER",
                    "{BUILDKITE_BUILD_URL}",
                    "BUILDKITE_BRANCH",
                    "BUILDKITE_PULL_REQUEST_BASE_BRANCH",
                    "BUILDKITE_PARALLEL_JOB",
                    "BUILDKITE_PARALLEL_JOB_COUNT",
                    0),
            new Variables(
                    "CIRCLECI",
                    "CIRCLE_JOB",
                    "CIRCLE_BUILD_NUM",
                    "{CIRCLE_BUILD_URL}",
                    "CIRCLE_BRANCH",
                    "",
                    "CIRCLE_NODE_INDEX",
                    "CIRCLE_NODE_TOTAL",
                    0),
            new Variables(
                    "TRAVIS",
                    "TRAVIS_REPO_SLUG",
                    "TRAVIS_BUILD_NUMBER",
                    "{TRAVIS_BUILD_WEB_URL}",
                    "TRAVIS_PULL_REQUEST_BRANCH,TRAVIS_BRANCH",
                    "",
                    "",
                    "",
                    1),
            new Variables(
                    "TEAMCITY_VERSION", "TEAMCITY_BUILDCONF_NAME", "BUILD_NUMBER", "{BUILD_URL}", "", "", "", "", 1),
            new Variables(
                    "TF_BUILD",
                    "BUILD_DEFINITIONNAME",
                    "BUILD_BUILDNUMBER",
                    "{SYSTEM_COLLECTIONURI}{SYSTEM_TEAMPROJECT}/_build/results?buildId={BUILD_BUILDID}",
                    "SYSTEM_PULLREQUEST_SOURCEBRANCH,BUILD_SOURCEBRANCH",
                    "SYSTEM_PULLREQUEST_TARGETBRANCH",
                    "SYSTEM_JOBPOSITIONINPHASE",
                    "SYSTEM_TOTALJOBSINPHASE",
                    1));

    private CiFacts() {}

    public static void gather(Map<String, String> environment, Map<String, String> facts) {
        for (Variables known : KNOWN) {
            if (!environment.containsKey(known.sign())) continue;
            put(facts, "CI job", environment.get(known.job()));
            put(facts, "CI number", environment.get(known.number()));
            put(facts, "CI link", link(known.link(), environment));
            put(facts, "branch", branch(known.branch(), environment));
            put(facts, "target branch", branch(known.target(), environment));
            return;
        }
    }

    private static @Nullable String branch(String variables, Map<String, String> environment) {
        for (String variable : variables.split(",", -1)) {
            String branch = environment.get(variable);
            if (branch != null && !branch.isBlank())
                return branch.replaceFirst("^refs/heads/", "").replaceFirst("^origin/", "");
        }
        return null;
    }

    /** Which part of a job this is that runs several times side by side, such as {@code 2 of 4}; empty where it runs once. */
    static String shard(Map<String, String> environment) {
        for (Variables known : KNOWN) {
            if (!environment.containsKey(known.sign())) continue;
            try {
                int number = Integer.parseInt(environment.getOrDefault(known.shard(), ""));
                int all = Integer.parseInt(environment.getOrDefault(known.shards(), ""));
                if (all > 1) return (number - known.firstShard() + 1) + " of " + all;
            } catch (NumberFormatException none) {
                // the job does not run side by side
            }
        }
        return "";
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
