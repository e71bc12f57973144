package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.results.Rule;
import com.deque.html.axecore.selenium.AxeBuilder;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.rules.RulesReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the page says of the runs before. */
class EarlierRunsPageTest {

    private static Chromium chromium;

    @TempDir
    Path root;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    private Run run(String... failing) throws Exception {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        for (String name : List.of("grows", "waters", "rests")) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("k." + name, name)
                            .className("sample.BedsTest")
                            .methodName(name)
                            .build());
            boolean fails = List.of(failing).contains(name);
            recorder.endTest(test, fails ? TestEnd.threw(new AssertionError(name + " is dry")) : TestEnd.passed());
        }
        return RunReader.read(root);
    }

    private int number;

    /** Nights before {@code run}, each as letters: {@code F} failed for the reason that it has now. */
    private BaselineFinder before(Run run, String branch, Map<String, String> letters) throws Exception {
        RunDigest now = RunDigest.of(run);
        int nights = letters.values().iterator().next().length();
        List<RunDigest> all = new ArrayList<>();
        for (int night = 0; night < nights; night++) {
            List<TestDigest> tests = new ArrayList<>();
            for (TestDigest test : now.tests()) {
                String row = letters.get(test.key());
                if (row == null) continue;
                boolean failed = row.charAt(night) == 'F';
                tests.add(new TestDigest(
                        test.key(),
                        test.name(),
                        failed ? Outcome.FAILED : Outcome.PASSED,
                        5,
                        1,
                        false,
                        failed ? test.reason() : null,
                        List.of()));
            }
            Map<String, String> facts = new HashMap<>(now.facts());
            facts.put("branch", branch);
            all.add(new RunDigest(
                    "night" + night,
                    now.started().minus(Duration.ofDays(nights - night)),
                    Duration.ofMinutes(1),
                    facts,
                    true,
                    false,
                    tests,
                    now.reasons()));
        }
        var folder = new HistoryFolder(root.resolve("history-" + number++));
        for (RunDigest one : all) folder.add(one);
        return new BaselineFinder(root.resolve("nothing"), folder, folder.read(problem -> {}));
    }

    private static String branch(Run run) {
        return run.facts().getOrDefault("branch", "");
    }

    @Test
    void a_new_failure_of_a_flaky_test_is_told_as_that() throws Exception {
        Run run = run("grows", "waters");
        BaselineFinder history = before(
                run,
                branch(run),
                Map.of("k.grows", "..F...F..F..F....F..", "k.waters", ".".repeat(20), "k.rests", ".".repeat(20)));
        Path index = Page.write(run, root.resolve("page"), PageOptions.PLAIN.withEarlier(history));

        chromium.open(index, "");

        assertThat(chromium.text(".news")).matches("(?s)All of them are new since .+, 1 of a flaky test\\..*");
        chromium.open(index, "#/test/k.grows");
        assertThat(chromium.text(".before")).matches(".*; it is flaky and fails \\d+ % of the time anyway");
        chromium.open(index, "#/test/k.waters");
        assertThat(chromium.text(".before")).doesNotContain("anyway");
    }

    @Test
    void what_a_team_says_of_failures_stands_beside_them_and_is_filtered_by() throws Exception {
        Path rules = Files.writeString(root.resolve("rules.yaml"), """
                labels: [the <b>well</b> team]
                triage:
                  - when: {test: waters}
                    label: the <b>well</b> team
                    owner: Ada
                    known-until: 2020-01-31
                    link: https://orto.example/well
                  - when: {test: grows}
                    label: environment
                    known-until: 2099-12-31
                    comment: it rains
                    link: "javascript:alert(1)"
                """);
        Run run = run("grows", "waters");
        Path index = Page.write(
                run,
                root.resolve("page"),
                PageOptions.PLAIN.withRules(RulesReader.read(rules).triage()));

        chromium.open(index, "");

        assertThat(chromium.texts(".rule"))
                .containsExactlyInAnyOrder(
                        "the <b>well</b> team, owner Ada, was known until 2020-01-31: look at it again, more",
                        "environment, known until 2099-12-31, it rains");
        chromium.open(index, "#/tests?label=the+%3Cb%3Ewell%3C%2Fb%3E+team");
        assertThat(chromium.texts(".row-line")).singleElement().asString().contains("waters");
        chromium.open(index, "#/tests?owner=Ada");
        assertThat(chromium.texts(".row-line")).singleElement().asString().contains("waters");
        chromium.open(index, "#/tests?group=label&failing=failing");
        assertThat(chromium.texts(".row-line")).hasSize(2);
        chromium.open(index, "#/test/k.grows");
        assertThat(chromium.text(".rule")).isEqualTo("environment, known until 2099-12-31, it rains");
        assertThat(chromium.texts(".rule a")).containsExactly("environment");
    }

    @Test
    void new_failures_are_told_from_known_ones_and_lead_to_their_tests() throws Exception {
        Run run = run("grows", "waters");
        BaselineFinder history =
                before(run, branch(run), Map.of("k.grows", "..FFF", "k.waters", ".....", "k.rests", "....."));
        Path index = Page.write(run, root.resolve("page"), PageOptions.PLAIN.withEarlier(history));

        chromium.open(index, "");

        assertThat(chromium.text(".news"))
                .matches("(?s)1 of them is new since the run of (\\S+ of )?\\w+ \\d+, \\d{4}\\..*");
        assertThat(chromium.texts(".since"))
                .hasSize(2)
                .anyMatch(text -> text.equals("never seen before"))
                .anyMatch(text -> text.matches("since \\w+ \\d+, \\d{4}, in 3 earlier runs"));
        chromium.find(".news a").click();
        assertThat(chromium.text(".found [role=status]")).isEqualTo("1 of 3 tests");
        assertThat(chromium.texts(".row-line")).singleElement().asString().contains("waters");
        assertThat(chromium.text(".quick[aria-pressed=true]")).startsWith("new");
        chromium.find(".quick[aria-pressed=true]").click();
        assertThat(chromium.text(".found [role=status]")).isEqualTo("3 tests");
        chromium.open(index, "#/test/k.grows");
        assertThat(chromium.text(".before")).isEqualTo("3 of the last 5 runs failed");
        assertThat(chromium.find(".before .marks").getDomAttribute("aria-label"))
                .isEqualTo("Earlier runs, the oldest first: passed, passed, failed, failed, failed");
        chromium.open(index, "#/test/k.waters");
        assertThat(chromium.text(".before")).matches("new since the run of .+; 0 of the last 5 runs failed");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void earlier_runs_are_drawn_with_what_somebody_should_look_at_and_lead_there() throws Exception {
        Run run = run("grows", "waters");
        BaselineFinder history =
                before(run, branch(run), Map.of("k.grows", "..FFF", "k.waters", ".....", "k.rests", "....."));
        Path index = Page.write(run, root.resolve("page"), PageOptions.PLAIN.withEarlier(history));

        chromium.open(index, "");
        chromium.find("a[href='#/earlier']").click();

        assertThat(chromium.text(".earlier h1"))
                .isEqualTo("2 of the last 5 runs passed whole. This time 2 did not pass; in the run before, 1.");
        assertThat(chromium.texts(".chart g")).hasSize(6);
        chromium.find(".matrix");
        assertThat(chromium.texts(".matrix caption")).containsExactly("Failing or flaky now the runs before this one");
        assertThat(chromium.texts(".matrix tr")).hasSize(2);
        assertThat(chromium.find(".matrix .marks").getDomAttribute("aria-label"))
                .isEqualTo("Earlier runs, the oldest first: passed, passed, failed, failed, failed");
        chromium.find(".earlier summary").click();
        for (String theme : List.of("light", "dark")) {
            chromium.script("document.documentElement.dataset.theme = '" + theme + "'");
            assertThat(new AxeBuilder().analyze(chromium.driver()).getViolations())
                    .as(theme)
                    .extracting(Rule::getId)
                    .isEmpty();
        }
        chromium.complaints(); // of axe, which asks for what the page's policy refuses
        assertThat(chromium.texts(".earlier .groups tbody tr"))
                .hasSize(6)
                .last()
                .asString()
                .contains("night0");
        chromium.find(".matrix a").click();
        assertThat(chromium.text(".test h1")).isEqualTo("grows");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void a_run_without_news_says_so_and_other_branches_do_not_count() throws Exception {
        Run run = run("grows");
        Path known = Page.write(
                run,
                root.resolve("known"),
                PageOptions.PLAIN.withEarlier(before(run, branch(run), Map.of("k.grows", ".F", "k.waters", ".."))));
        chromium.open(known, "");
        assertThat(chromium.text(".news")).startsWith("None of them is new since ");

        Path other = Page.write(
                run,
                root.resolve("other"),
                PageOptions.PLAIN.withEarlier(before(run, "another", Map.of("k.grows", ".F"))));
        assertThat(Files.readString(other.resolveSibling("data/run.js"))).doesNotContain("\"earlier\"");
        assertThat(Files.readString(Page.write(run, root.resolve("none")).resolveSibling("data/run.js")))
                .isEqualTo(Files.readString(other.resolveSibling("data/run.js")));
    }
}
