package dev.verbale.ci;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A CI system, known by the variables that it documents for its jobs. Of the environment nothing else is looked at: it holds secrets.
 * Immutable.
 *
 * @since 0.2.0
 */
public final class CiSystem {

    /** The fact what the job is called. */
    public static final String JOB = "CI job";

    /** The fact which of its runs this is. */
    public static final String NUMBER = "CI number";

    /** The fact where the job's page is. */
    public static final String LINK = "CI link";

    /** The fact which branch is tested; the working tree of a job is seldom on one. */
    public static final String BRANCH = "branch";

    /** The fact which branch it is going to be merged into, where the job tests a change. */
    public static final String TARGET_BRANCH = "target branch";

    /** The fact which commit is tested. */
    public static final String COMMIT = "commit";

    /** The fact where that commit is shown. */
    public static final String COMMIT_LINK = "commit link";

    /** The fact which change is tested before it is merged, as the forge counts them. */
    public static final String PULL_REQUEST = "pull request";

    /** The fact who began the job, or whose change began it. */
    public static final String ASKED_BY = "asked by";

    /** As a variable of a job or of a change has it: {@code 7}, {@code refs/pull/7/merge}, or an address that ends in it. */
    private static final Pattern REQUEST = Pattern.compile("(?:refs/pull/|https?://\\S+/)?(\\d{1,12})(?:/merge)?");

    private static final Pattern VARIABLE = Pattern.compile("\\{([A-Z_0-9]+)}");

    private static final String SHARD = "shard";
    private static final String SHARDS = "shards";
    private static final String BUILD = "build";

    /** All that a system may say, in the order in which it is documented: the facts of a run, which shard it is of how many, and the build. */
    public static final List<String> FACTS = List.of(
            JOB,
            NUMBER,
            LINK,
            BRANCH,
            TARGET_BRANCH,
            COMMIT,
            COMMIT_LINK,
            PULL_REQUEST,
            ASKED_BY,
            SHARD,
            SHARDS,
            BUILD);

    private static final int LONGEST_BUILD = 100;

    /** The order in which they are looked for. */
    public static final List<CiSystem> ALL = List.of(
            of("GitHub Actions", "GITHUB_ACTIONS")
                    .says(JOB, "{GITHUB_WORKFLOW}")
                    .says(NUMBER, "{GITHUB_RUN_NUMBER}")
                    .says(LINK, "{GITHUB_SERVER_URL}/{GITHUB_REPOSITORY}/actions/runs/{GITHUB_RUN_ID}")
                    .says(BRANCH, "{GITHUB_HEAD_REF}", "{GITHUB_REF_NAME}")
                    .says(TARGET_BRANCH, "{GITHUB_BASE_REF}")
                    .says(COMMIT, "{GITHUB_SHA}")
                    .says(COMMIT_LINK, "{GITHUB_SERVER_URL}/{GITHUB_REPOSITORY}/commit/{GITHUB_SHA}")
                    .says(PULL_REQUEST, "{GITHUB_REF}")
                    .says(ASKED_BY, "{GITHUB_ACTOR}")
                    .says(BUILD, "{GITHUB_RUN_ID}-{GITHUB_RUN_ATTEMPT}", "{GITHUB_RUN_ID}")
                    .system(1),
            of("GitLab CI", "GITLAB_CI")
                    .says(JOB, "{CI_JOB_NAME}")
                    .says(NUMBER, "{CI_PIPELINE_IID}")
                    .says(LINK, "{CI_JOB_URL}")
                    .says(BRANCH, "{CI_MERGE_REQUEST_SOURCE_BRANCH_NAME}", "{CI_COMMIT_REF_NAME}")
                    .says(TARGET_BRANCH, "{CI_MERGE_REQUEST_TARGET_BRANCH_NAME}")
                    .says(COMMIT, "{CI_COMMIT_SHA}")
                    .says(COMMIT_LINK, "{CI_PROJECT_URL}/-/commit/{CI_COMMIT_SHA}")
                    .says(PULL_REQUEST, "{CI_MERGE_REQUEST_IID}")
                    .says(ASKED_BY, "{GITLAB_USER_LOGIN}")
                    .says(SHARD, "{CI_NODE_INDEX}")
                    .says(SHARDS, "{CI_NODE_TOTAL}")
                    .says(BUILD, "{CI_PIPELINE_ID}")
                    .system(1),
            of("Jenkins", "JENKINS_URL")
                    .says(JOB, "{JOB_NAME}")
                    .says(NUMBER, "{BUILD_NUMBER}")
                    .says(LINK, "{BUILD_URL}")
                    .says(BRANCH, "{CHANGE_BRANCH}", "{BRANCH_NAME}", "{GIT_LOCAL_BRANCH}", "{GIT_BRANCH}")
                    .says(TARGET_BRANCH, "{CHANGE_TARGET}")
                    .says(COMMIT, "{GIT_COMMIT}")
                    .says(PULL_REQUEST, "{CHANGE_ID}")
                    .says(ASKED_BY, "{CHANGE_AUTHOR}", "{BUILD_USER_ID}")
                    .says(BUILD, "{BUILD_TAG}")
                    .system(1),
            of("Buildkite", "BUILDKITE")
                    .says(JOB, "{BUILDKITE_PIPELINE_SLUG}")
                    .says(NUMBER, "{BUILDKITE_BUILD_NUMBER}")
                    .says(LINK, "{BUILDKITE_BUILD_URL}")
                    .says(BRANCH, "{BUILDKITE_BRANCH}")
                    .says(TARGET_BRANCH, "{BUILDKITE_PULL_REQUEST_BASE_BRANCH}")
                    .says(COMMIT, "{BUILDKITE_COMMIT}")
                    .says(PULL_REQUEST, "{BUILDKITE_PULL_REQUEST}")
                    .says(ASKED_BY, "{BUILDKITE_BUILD_CREATOR}")
                    .says(SHARD, "{BUILDKITE_PARALLEL_JOB}")
                    .says(SHARDS, "{BUILDKITE_PARALLEL_JOB_COUNT}")
                    .says(BUILD, "{BUILDKITE_PIPELINE_SLUG}-{BUILDKITE_BUILD_NUMBER}")
                    .system(0),
            of("CircleCI", "CIRCLECI")
                    .says(JOB, "{CIRCLE_JOB}")
                    .says(NUMBER, "{CIRCLE_BUILD_NUM}")
                    .says(LINK, "{CIRCLE_BUILD_URL}")
                    .says(BRANCH, "{CIRCLE_BRANCH}")
                    .says(COMMIT, "{CIRCLE_SHA1}")
                    .says(PULL_REQUEST, "{CIRCLE_PR_NUMBER}", "{CIRCLE_PULL_REQUEST}")
                    .says(ASKED_BY, "{CIRCLE_USERNAME}")
                    .says(SHARD, "{CIRCLE_NODE_INDEX}")
                    .says(SHARDS, "{CIRCLE_NODE_TOTAL}")
                    .says(BUILD, "{CIRCLE_WORKFLOW_ID}")
                    .system(0),
            of("Bitbucket Pipelines", "BITBUCKET_BUILD_NUMBER")
                    .says(JOB, "{BITBUCKET_REPO_SLUG}")
                    .says(NUMBER, "{BITBUCKET_BUILD_NUMBER}")
                    .says(LINK, "{BITBUCKET_GIT_HTTP_ORIGIN}/pipelines/results/{BITBUCKET_BUILD_NUMBER}")
                    .says(BRANCH, "{BITBUCKET_BRANCH}")
                    .says(TARGET_BRANCH, "{BITBUCKET_PR_DESTINATION_BRANCH}")
                    .says(COMMIT, "{BITBUCKET_COMMIT}")
                    .says(COMMIT_LINK, "{BITBUCKET_GIT_HTTP_ORIGIN}/commits/{BITBUCKET_COMMIT}")
                    .says(PULL_REQUEST, "{BITBUCKET_PR_ID}")
                    .says(SHARD, "{BITBUCKET_PARALLEL_STEP}")
                    .says(SHARDS, "{BITBUCKET_PARALLEL_STEP_COUNT}")
                    .says(BUILD, "{BITBUCKET_BUILD_NUMBER}")
                    .system(0),
            of("Travis CI", "TRAVIS")
                    .says(JOB, "{TRAVIS_REPO_SLUG}")
                    .says(NUMBER, "{TRAVIS_BUILD_NUMBER}")
                    .says(LINK, "{TRAVIS_BUILD_WEB_URL}")
                    .says(BRANCH, "{TRAVIS_PULL_REQUEST_BRANCH}", "{TRAVIS_BRANCH}")
                    .says(COMMIT, "{TRAVIS_COMMIT}")
                    .says(PULL_REQUEST, "{TRAVIS_PULL_REQUEST}")
                    .says(BUILD, "{TRAVIS_BUILD_NUMBER}")
                    .system(1),
            of("TeamCity", "TEAMCITY_VERSION")
                    .says(JOB, "{TEAMCITY_BUILDCONF_NAME}")
                    .says(NUMBER, "{BUILD_NUMBER}")
                    .says(LINK, "{BUILD_URL}")
                    .says(COMMIT, "{BUILD_VCS_NUMBER}")
                    .says(BUILD, "{TEAMCITY_BUILDCONF_NAME}-{BUILD_NUMBER}")
                    .system(1),
            of("Azure Pipelines", "TF_BUILD")
                    .says(JOB, "{BUILD_DEFINITIONNAME}")
                    .says(NUMBER, "{BUILD_BUILDNUMBER}")
                    .says(LINK, "{SYSTEM_COLLECTIONURI}{SYSTEM_TEAMPROJECT}/_build/results?buildId={BUILD_BUILDID}")
                    .says(BRANCH, "{SYSTEM_PULLREQUEST_SOURCEBRANCH}", "{BUILD_SOURCEBRANCH}")
                    .says(TARGET_BRANCH, "{SYSTEM_PULLREQUEST_TARGETBRANCH}")
                    .says(COMMIT, "{BUILD_SOURCEVERSION}")
                    .says(COMMIT_LINK, "{BUILD_REPOSITORY_URI}/commit/{BUILD_SOURCEVERSION}")
                    .says(PULL_REQUEST, "{SYSTEM_PULLREQUEST_PULLREQUESTNUMBER}", "{SYSTEM_PULLREQUEST_PULLREQUESTID}")
                    .says(ASKED_BY, "{BUILD_REQUESTEDFOR}")
                    .says(SHARD, "{SYSTEM_JOBPOSITIONINPHASE}")
                    .says(SHARDS, "{SYSTEM_TOTALJOBSINPHASE}")
                    .says(BUILD, "{BUILD_BUILDID}")
                    .system(1));

    private final String name;
    private final String sign;
    private final Map<String, List<String>> templates;
    private final int firstShard;

    private CiSystem(String name, String sign, Map<String, List<String>> templates, int firstShard) {
        this.name = name;
        this.sign = sign;
        this.templates = Collections.unmodifiableMap(new LinkedHashMap<>(templates));
        this.firstShard = firstShard;
    }

    private static Builder of(String name, String sign) {
        return new Builder(name, sign);
    }

    /** The system whose job this is; empty where it is none that is known. */
    public static Optional<CiSystem> of(Map<String, String> environment) {
        return ALL.stream()
                .filter(one -> !environment.getOrDefault(one.sign, "").isBlank())
                .findFirst();
    }

    /** As people call it. */
    public String name() {
        return name;
    }

    /** The variable that is there on this system only. */
    public String sign() {
        return sign;
    }

    /**
     * Where a fact comes from: of several the first counts whose variables are all there.
     *
     * @param fact such as {@link #BRANCH}
     * @return variables in braces, with text between; empty where the system does not say
     */
    public List<String> templates(String fact) {
        return templates.getOrDefault(fact, List.of());
    }

    /** What is known of the job, by the names of the facts, in the order of this class's. */
    public Map<String, String> facts(Map<String, String> environment) {
        Map<String, String> facts = new LinkedHashMap<>();
        for (String fact : FACTS.subList(0, FACTS.indexOf(SHARD))) {
            String value = value(fact, environment);
            if (!value.isEmpty()) facts.put(fact, value);
        }
        return facts;
    }

    /** Which part of a job this is that runs several times side by side, such as {@code 2 of 4}; empty where it runs once. */
    public String shard(Map<String, String> environment) {
        try {
            int all = Integer.parseInt(value(SHARDS, environment));
            int number = Integer.parseInt(value(SHARD, environment));
            return all > 1 ? (number - firstShard + 1) + " of " + all : "";
        } catch (NumberFormatException none) {
            return ""; // it does not run side by side
        }
    }

    /**
     * What all jobs and machines of one build have in common, and no other build has: letters, digits, dots, hyphens and underscores, at most
     * 100. Empty where the system says nothing of the kind.
     */
    public Optional<String> build(Map<String, String> environment) {
        String build = value(BUILD, environment);
        if (build.isEmpty()) return Optional.empty();
        String called = "build-" + build.replaceAll("[^A-Za-z0-9._-]+", "-");
        // What tells builds from each other is at the end.
        if (called.length() > LONGEST_BUILD)
            called = "build-" + called.substring(called.length() - (LONGEST_BUILD - "build-".length()));
        return Optional.of(called.replaceFirst("[.-]+$", ""));
    }

    /** What the job's build is called, see {@link #build}; empty where this is no build of a known system. */
    public static Optional<String> buildOf(Map<String, String> environment) {
        return of(environment).flatMap(system -> system.build(environment));
    }

    /** All variables by which any system is known, and says something. */
    public static Set<String> variables() {
        Set<String> all = new TreeSet<>();
        for (CiSystem system : ALL) {
            all.add(system.sign);
            for (List<String> templates : system.templates.values())
                for (String template : templates)
                    VARIABLE.matcher(template).results().forEach(one -> all.add(one.group(1)));
        }
        return all;
    }

    private String value(String fact, Map<String, String> environment) {
        for (String template : templates(fact)) {
            String value = filled(template, environment);
            if (value == null) continue;
            switch (fact) {
                case BRANCH, TARGET_BRANCH:
                    return value.replaceFirst("^refs/heads/", "").replaceFirst("^origin/", "");
                case PULL_REQUEST:
                    Matcher request = REQUEST.matcher(value);
                    if (request.matches()) return request.group(1);
                    break; // of a job that tests no change some systems say "false"
                default:
                    return value;
            }
        }
        return "";
    }

    private static @Nullable String filled(String template, Map<String, String> environment) {
        var text = new StringBuilder();
        Matcher variable = VARIABLE.matcher(template);
        while (variable.find()) {
            String value = environment.getOrDefault(variable.group(1), "").strip();
            if (value.isEmpty()) return null;
            variable.appendReplacement(text, Matcher.quoteReplacement(value));
        }
        return variable.appendTail(text).toString();
    }

    private static final class Builder {

        private final String name;
        private final String sign;
        private final Map<String, List<String>> templates = new LinkedHashMap<>();

        Builder(String name, String sign) {
            this.name = name;
            this.sign = sign;
        }

        Builder says(String fact, String... from) {
            templates.put(fact, new ArrayList<>(List.of(from)));
            return this;
        }

        CiSystem system(int firstShard) {
            return new CiSystem(name, sign, templates, firstShard);
        }
    }
}
