package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.event.FactStated;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.SampleRun;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One screen on a Monday: thirty nights are remembered, and this is the run of the thirty-first. */
class TodayCommandTest {

    /** A Monday, at noon everywhere that matters. */
    private static final Instant NOW = Instant.parse("2026-11-30T12:00:00Z");

    private static final int NIGHTS = 30;
    private static final int OTHERS = 40;

    @TempDir
    static Path work;

    private static StayingJvm jvm;

    @BeforeAll
    static void begin() throws Exception {
        jvm = new StayingJvm(work, Map.of());
        var history = new HistoryFolder(work.resolve(".verbale/history"));
        String known = reason("known");
        for (int night = NIGHTS; night > 0; night--) history.add(night(night, known));
        tonight("2026-11-30_120000_aaaa", Map.of("branch", "main"), true);
        tonight("2026-11-30_110000_bbbb", Map.of("branch", "other"), false);
        outage("2026-11-30_123000_cccc");
        Files.writeString(work.resolve("verbale-rules.yaml"), """
                labels: [seeds team]
                triage:
                  - when: {message: the till is known}
                    label: environment
                    owner: platform
                    known-until: 2099-12-31
                  - when: {message: stale}
                    label: test
                    known-until: 2020-01-31
                  - when: {message: the seeds}
                    label: seeds team
                gate: {new-failures: 1, except-flaky: 90}
                """);
    }

    @AfterAll
    static void end() throws Exception {
        jvm.close();
    }

    /** The id of the reason that a test has here, tonight and in the nights before. */
    private static String reason(String test) throws Exception {
        SampleRun one = SampleRun.in(Files.createDirectories(work.resolve("one")), test)
                .test(test, Outcome.FAILED, SampleRun.failure("E", message(test)));
        return FailureReason.of(one.read()).get(0).id();
    }

    private static String message(String test) {
        return switch (test) {
            case "known" -> "the till is known";
            case "stale" -> "the rule is stale";
            case "fresh" -> "the seeds are gone";
            default -> test + " was not on its own";
        };
    }

    private static RunDigest night(int before, String known) {
        List<TestDigest> tests = new ArrayList<>();
        boolean flickers = before % 5 == 0;
        add(tests, "flickers", flickers, null);
        add(tests, "fresh", false, null);
        add(tests, "known", before < 9, known);
        add(tests, "stale", before < 3, null);
        add(tests, "mended", before < 2, null);
        for (int i = 0; i < OTHERS; i++) add(tests, "t" + i, false, null);
        Instant started = NOW.minus(Duration.ofDays(before));
        return new RunDigest(
                "night-" + before,
                started,
                Duration.ofMinutes(1),
                Map.of("branch", "main"),
                true,
                false,
                tests,
                List.of(new ReasonDigest(known, "the till is known")));
    }

    private static void add(List<TestDigest> tests, String name, boolean fails, String reason) {
        String key = "sample." + name + "()";
        Outcome outcome = fails ? Outcome.FAILED : Outcome.PASSED;
        tests.add(new TestDigest(key, name, outcome, 1, 1, false, fails ? reason : null, List.of()));
    }

    private static void tonight(String name, Map<String, String> facts, boolean fails) throws Exception {
        SampleRun run = SampleRun.in(Files.createDirectories(work.resolve("target/verbale")), name);
        Instant began = fails ? NOW : NOW.minus(Duration.ofHours(1));
        Files.delete(new RunFolder(run.path()).runFile());
        new RunDescription(1, name, began, Map.of()).writeIfAbsent(new RunFolder(run.path()).runFile());
        run.worker("worker-1", began);
        for (var fact : facts.entrySet()) run.write(new FactStated(1, fact.getKey(), fact.getValue()));
        for (String test : List.of("flickers", "fresh", "known", "stale"))
            run.test(
                    test,
                    fails ? Outcome.FAILED : Outcome.PASSED,
                    fails ? SampleRun.failure("E", message(test)) : null);
        run.test("mended", Outcome.PASSED, null);
        for (int i = 0; i < OTHERS; i++) run.test("t" + i, Outcome.PASSED, null);
        run.read();
    }

    /** Half an hour later a third of all fails for one reason. */
    private static void outage(String name) throws Exception {
        SampleRun run = SampleRun.in(Files.createDirectories(work.resolve("target/verbale")), name);
        Files.delete(new RunFolder(run.path()).runFile());
        Instant began = NOW.plus(Duration.ofMinutes(30));
        new RunDescription(1, name, began, Map.of()).writeIfAbsent(new RunFolder(run.path()).runFile());
        run.worker("worker-1", began).write(new FactStated(1, "branch", "main"));
        for (String test : List.of("flickers", "fresh", "known", "stale", "mended"))
            run.test(test, Outcome.PASSED, null);
        for (int i = 0; i < OTHERS; i++)
            run.test(
                    "t" + i,
                    i < 15 ? Outcome.ERRORED : Outcome.PASSED,
                    i < 15 ? SampleRun.failure("E", "the shed is locked", "dev.orto.Shed.open(Shed.java:3)") : null);
        run.read();
    }

    private static Output today(String... more) throws Exception {
        List<String> arguments = new ArrayList<>(List.of("today", "2026-11-30_120000_aaaa"));
        arguments.addAll(List.of(more));
        return jvm.run(arguments.toArray(new String[0]));
    }

    @Test
    void one_screen_says_what_is_new_and_whose_it_is_and_what_is_known_and_flaky() throws Exception {
        Output output = today();

        assertThat(output.err()).isEmpty();
        assertThat(output.out())
                .containsSubsequence(
                        "4 of 45 tests did not pass",
                        "branch main, run 2026-11-30_120000_aaaa",
                        "Beside night-1, the newest complete run of main before it",
                        "The gate is open.",
                        "Not counted as new: flickers, which fails 1 in",
                        "New  1 failure, 1 reason",
                        "the seeds are gone",
                        "seeds team",
                        "New, of tests that are flaky anyway  1 failure, 1 reason",
                        "flickers: fails 1 in",
                        "Still failing  1 failure, 1 reason",
                        "the rule is stale",
                        "was known until 2020-01-31: look at it again",
                        "fails since Sat 28 Nov",
                        "Known  1 failure, 1 reason",
                        "the till is known",
                        "environment, owner platform, known until 2099-12-31",
                        "fails since Sun 22 Nov",
                        "Fixed  1",
                        "mended");
        assertThat(output.code()).isZero();
    }

    @Test
    void what_is_new_since_a_day_is_more() throws Exception {
        Output output = today("--since", "friday");

        assertThat(output.out())
                .contains("Beside night-3, the newest complete run of main up to friday: 3 new failures")
                .contains("Runs since: Sat 28 Nov", "; Sun 29 Nov")
                .containsSubsequence(
                        "New  2 failures, 2 reasons", "the rule is stale", "fails since Sat 28 Nov", "Known");
        assertThat(output.code()).as("two are new, and one is allowed").isEqualTo(5);
        assertThat(output.out()).contains("The gate is closed.", "2 tests fail and did not before, and 1 is allowed.");
    }

    @Test
    void compare_tells_flaky_tests_apart_too() throws Exception {
        Output output = jvm.run("compare", "2026-11-30_120000_aaaa", "--baseline", "2026-11-29");

        assertThat(output.out())
                .containsSubsequence(
                        "2 new failures, 1 of them of a flaky test",
                        "New  1 failure",
                        "the seeds are gone",
                        "fresh",
                        "New, of tests that are flaky anyway  1 failure",
                        "flickers: fails 1 in 5",
                        "anyway");
    }

    @Test
    void whose_a_failure_is_stands_wherever_it_does() throws Exception {
        String label = "environment, owner platform, known until 2099-12-31";
        String run = "2026-11-30_120000_aaaa";

        assertThat(jvm.run("failures", run).out()).containsSubsequence("Known", "the till is known", label);
        assertThat(jvm.run("compare", run).out()).containsSubsequence("Known  1", label, "known");
        for (String format : List.of("junit", "markdown", "mail-html", "mail-text"))
            assertThat(jvm.run("export", "--format", format, run).out().replace("\\", ""))
                    .as(format)
                    .contains(label);
        Output page = jvm.run("page", run);
        assertThat(page.code()).isZero();
        assertThat(Files.readString(work.resolve("target/verbale/" + run + "/page/data/run.js")))
                .contains("{\"label\":\"environment\",\"owner\":\"platform\",\"knownUntil\":\"2099-12-31\"}");
    }

    @Test
    void what_failed_together_is_named_once() throws Exception {
        String run = "2026-11-30_123000_cccc";

        assertThat(jvm.run("compare", run).out())
                .containsSubsequence(
                        "15 new failures, 15 of them together, 4 fixed.",
                        "New, and many at once: the run was not itself  15 failures, 1 reason",
                        "the shed is locked",
                        "and 14 more",
                        "Fixed");
        assertThat(jvm.run("today", run).out())
                .containsSubsequence(
                        "The gate is closed.",
                        "New, and many at once: the run was not itself  15 failures, 1 reason",
                        "the shed is locked",
                        "Fixed  4");
    }

    @Test
    void what_cannot_be_looked_back_to_is_said() throws Exception {
        assertThat(today("--since", "doomsday").err())
                .contains("there is no run 'doomsday', and it is no day, no moment and no tag of git's either");
        assertThat(today("--since", "2020-01-01").err()).contains("no complete run of main up to 2020-01-01 is known");
        assertThat(today("--since", "doomsday").code()).isEqualTo(3);
    }

    @Test
    void without_anything_to_compare_with_nothing_is_called_new() throws Exception {
        Output output = today("--history", "nowhere");

        assertThat(output.code()).isEqualTo(5);
        assertThat(output.out())
                .contains("No run is known to compare it with.")
                .contains("Failures  3 failures, 3 reasons", "Known  1 failure");
    }
}
