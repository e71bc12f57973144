package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.FactStated;
import dev.verbale.event.JournalEnded;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Which run another one is compared with, from what is remembered and from what lies beside it. */
class BaselineTest {

    @TempDir
    Path folder;

    private int runs;

    /** A run of ten tests a day after the one before; {@code failing} names some of them. */
    private SampleRun begun(Map<String, String> facts, int tests, String failing) throws Exception {
        String name = "run-" + ++runs;
        Instant began = SampleRun.WALL.plus(Duration.ofDays(runs));
        SampleRun run = SampleRun.in(Files.createDirectories(folder.resolve("runs")), name);
        Files.delete(new RunFolder(run.path()).runFile());
        new RunDescription(1, name, began, Map.of()).writeIfAbsent(new RunFolder(run.path()).runFile());
        run.worker("worker-1", began);
        for (var fact : facts.entrySet()) run.write(new FactStated(1, fact.getKey(), fact.getValue()));
        for (int i = 1; i <= tests; i++)
            run.test(
                    "t" + i,
                    failing.contains("t" + i + ",") ? Outcome.FAILED : Outcome.PASSED,
                    failing.contains("t" + i + ",") ? SampleRun.failure("E", "t" + i) : null);
        return run;
    }

    private Run run(String branch, String failing) throws Exception {
        return begun(Map.of("branch", branch), 9, failing).read();
    }

    private Run remembered(Run run) throws Exception {
        history().add(RunDigest.of(run));
        try (Stream<Path> files = Files.walk(run.folder())) {
            for (Path file : files.sorted(java.util.Comparator.reverseOrder()).toList()) Files.delete(file);
        }
        return run;
    }

    private HistoryFolder history() {
        return new HistoryFolder(folder.resolve("history"));
    }

    private BaselineFinder finder() throws Exception {
        return new BaselineFinder(folder.resolve("runs"), history(), history().read(problem -> {}));
    }

    private Baseline baseline(Run run) throws Exception {
        return finder().find(null, run).orElse(null);
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void what_another_branch_broke_is_new_where_it_comes_to_this_one(boolean isRemembered) throws Exception {
        for (Run one : List.of(run("main", "t2,"), run("feature", "t2,t5,"))) if (isRemembered) remembered(one);
        Run third = run("main", "t2,t5,");

        Baseline before = baseline(third);

        assertThat(before.text()).isEqualTo("run-1, the newest complete run of main before it");
        Comparison comparison = Comparison.of(before, RunDigest.of(third), null);
        assertThat(comparison.newFailures())
                .extracting((Change change) -> change.after().key())
                .containsExactly("sample.t5()");
        assertThat(comparison.sentence()).isEqualTo("1 new failure, 1 still failing.");
        assertThat(baseline(run("another", "t1,")))
                .as("of no branch of its own")
                .isNull();
        assertThat(finder().find("branch:main", run("another", ""))
                        .orElseThrow()
                        .run()
                        .run())
                .isEqualTo("run-3");
    }

    @Test
    void a_run_that_failed_for_long_is_not_new_and_one_that_came_back_is() throws Exception {
        remembered(run("main", ""));
        for (int night = 0; night < 6; night++) remembered(run("main", "t4,"));
        Run now = run("main", "t4,t7,");

        Comparison comparison = Comparison.of(baseline(now), RunDigest.of(now), null);

        assertThat(comparison.newFailures())
                .extracting((Change change) -> change.after().key())
                .containsExactly("sample.t7()");
        assertThat(finder().find("last-good", now).orElseThrow().text()).isEqualTo("run-1, the last good run of main");
    }

    @ParameterizedTest
    @ValueSource(strings = {"killed", "selection", "shard", "missing", "few", "torn digest"})
    void what_is_not_whole_is_no_baseline(String how) throws Exception {
        run("main", "t2,");
        SampleRun other = switch (how) {
            case "selection" -> begun(Map.of("branch", "main", FactStated.SELECTION, "-Dtest=OneTest"), 9, "");
            case "shard" -> begun(Map.of("branch", "main", FactStated.SHARD, "1 of 2"), 9, "");
            case "few" -> begun(Map.of("branch", "main"), 4, "");
            default -> begun(Map.of("branch", "main"), 9, "");
        };
        if (how.equals("missing")) other.write(new JournalEnded(1, 3, Map.of("test-ended", 3L), 0));
        if (how.equals("torn digest")) {
            Run whole = remembered(other.read());
            Path digest = history().files().get(0);
            byte[] bytes = Files.readAllBytes(digest);
            Files.write(digest, java.util.Arrays.copyOf(bytes, bytes.length - 40));
            assertThat(finder().history().runs()).extracting("name").containsExactly(whole.name());
        } else if (!how.equals("killed")) other.read();
        Run now = run("main", "t2,t5,");

        assertThat(baseline(now).run().run()).isEqualTo("run-1");
        assertThat(finder().find("previous", now).orElseThrow().run().run()).isEqualTo("run-2");
        if (!how.equals("few") && !how.equals("shard") && !how.equals("selection")) return;
        assertThatThrownBy(() -> finder().find("last-good", now))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContaining("no good run of this branch is known");
    }

    @Test
    void a_selection_is_compared_with_the_whole_and_with_its_like_and_nothing_has_vanished() throws Exception {
        run("main", "t1,");
        Run one = begun(Map.of("branch", "main", FactStated.SELECTION, "-Dtest=OneTest"), 1, "")
                .read();

        Baseline whole = baseline(one);
        Comparison comparison = Comparison.of(whole, RunDigest.of(one), null);

        assertThat(whole.run().run()).isEqualTo("run-1");
        assertThat(comparison.sentence()).isEqualTo("1 fixed, 8 tests not run.");
        assertThat(Comparison.of(RunDigest.of(one), whole.run(), null).sentence())
                .as("a whole run that lacks what a selection ran")
                .startsWith("1 new failure");
        Run again = begun(Map.of("branch", "main", FactStated.SELECTION, "-Dtest=OneTest"), 1, "")
                .read();
        assertThat(baseline(again).run().run()).isEqualTo("run-2");
    }

    @Test
    void a_change_is_judged_beside_the_branch_that_it_is_going_to() throws Exception {
        run("main", "t2,");
        run("feature", "t2,t5,");
        Run again = begun(Map.of("branch", "feature", "target branch", "main"), 9, "t2,t5,")
                .read();

        assertThat(baseline(again).text()).isEqualTo("run-1, the newest complete run of main");
    }

    @Test
    void the_branch_that_was_left_is_told_by_its_commits() throws Exception {
        Path runs = Files.createDirectories(folder.resolve("runs"));
        git("init", "-q", "-b", "main");
        String left = commit("one");
        String later = commit("two");
        git("checkout", "-q", "-b", "feature", left);
        String own = commit("three");
        begun(Map.of("branch", "main", "commit", left), 9, "t2,").read();
        begun(Map.of("branch", "main", "commit", later), 9, "t3,").read();
        Run now = begun(Map.of("branch", "feature", "commit", own), 9, "t2,t5,").read();

        assertThat(baseline(now).text()).isEqualTo("run-1, the newest complete run of main, which feature left");
        assertThat(new BaselineFinder(runs, history(), history().read(problem -> {}))
                        .find(
                                null,
                                begun(Map.of("branch", "feature", "commit", "no commit"), 9, "")
                                        .read())
                        .orElseThrow()
                        .run()
                        .run())
                .as("of the same branch, where the commit says nothing")
                .isEqualTo("run-3");
    }

    private String commit(String subject) throws Exception {
        git("-c", "user.name=Ada", "-c", "user.email=ada@orto.example", "commit", "-q", "--allow-empty", "-m", subject);
        return git("rev-parse", "HEAD");
    }

    private String git(String... arguments) throws Exception {
        var command = new java.util.ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        Process git = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String out = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(git.waitFor()).as(out).isZero();
        return out.strip();
    }

    @Test
    void a_run_is_no_baseline_for_itself_and_one_of_two_files_counts() throws Exception {
        Run one = run("main", "");
        Path file = history().add(RunDigest.of(one));
        Files.copy(file, file.resolveSibling("copy-" + file.getFileName()));

        assertThat(finder().history().runs()).hasSize(1);
        assertThatThrownBy(() -> finder().find(one.folder().toString(), one))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContaining("is the run itself");
        assertThat(baseline(one)).isNull();
    }
}
