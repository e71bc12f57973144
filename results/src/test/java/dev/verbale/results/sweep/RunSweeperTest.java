package dev.verbale.results.sweep;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.FactStated;
import dev.verbale.results.SampleRun;
import dev.verbale.results.sweep.RunSweeper.Judged;
import dev.verbale.vocabulary.Outcome;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Runs that nobody needs any more. */
class RunSweeperTest {

    private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

    @TempDir
    Path root;

    @BeforeEach
    void record() throws Exception {
        run("2026-11-20_100000_aaaa", 20, "main", Outcome.PASSED);
        run("2026-11-21_100000_aaaa", 21, "other", Outcome.PASSED);
        run("2026-11-22_100000_aaaa", 22, "main", Outcome.FAILED);
        run("2026-11-23_100000_aaaa", 23, "main", Outcome.PASSED);
        run("2026-11-24_100000_aaaa", 24, "main", Outcome.PASSED);
        run("tonight", 10, "main", Outcome.PASSED);
        Files.createDirectories(root.resolve("2026-01-01_000000_aaaa"));
        Files.writeString(root.resolve("2026-01-01_000000_aaaa/letter.txt"), "no run");
    }

    private void run(String name, int day, String branch, Outcome outcome) throws Exception {
        SampleRun run = SampleRun.in(root, name);
        run.worker("worker-1", Instant.parse("2026-11-" + day + "T10:00:00Z"));
        run.write(new FactStated(1, "branch", branch));
        run.test("a", outcome, outcome.equals(Outcome.FAILED) ? SampleRun.failure("E", "x") : null);
        run.read();
    }

    @Test
    void the_newest_stay_and_so_do_failing_ones_and_the_last_good_of_each_branch() throws Exception {
        Map<String, String> plan =
                byDay(sweeper(new SweepRule(1, null, null, false)).sweep());

        assertThat(plan)
                .containsEntry("24", "stays: ")
                .containsEntry("23", "goes: there are 1 newer ones")
                .containsEntry("22", "stays: tests of it need attention")
                .containsEntry("21", "stays: it is the last good one of its branch")
                .containsEntry("20", "goes: there are 4 newer ones");
        assertThat(names())
                .containsExactly(
                        "2026-01-01_000000_aaaa",
                        "2026-11-21_100000_aaaa",
                        "2026-11-22_100000_aaaa",
                        "2026-11-24_100000_aaaa",
                        "tonight");
    }

    @Test
    void days_and_sizes_are_rules_too_and_a_plan_changes_nothing() throws Exception {
        assertThat(byDay(sweeper(new SweepRule(null, Duration.ofDays(3), null, true))
                        .plan()))
                .containsEntry("23", "stays: ")
                .containsEntry("22", "goes: it is 4 days old")
                .containsEntry("20", "goes: it is 6 days old");
        long one = sweeper(new SweepRule(0, null, null, true)).plan().get(0).bytes();
        assertThat(byDay(sweeper(new SweepRule(null, null, one + one / 2, true)).plan()))
                .containsEntry("24", "stays: ")
                .containsEntry("23", "goes: the newer ones are large enough");
        assertThat(names()).hasSize(7);
    }

    @Test
    void a_run_that_is_still_recorded_stays() throws Exception {
        Path locked = root.resolve("2026-11-23_100000_aaaa/writers.lock");
        Path open = SampleRun.in(root, "2026-11-19_100000_aaaa")
                .worker("worker-1", NOW)
                .test("a", Outcome.PASSED, null)
                .path();
        Path killed = SampleRun.in(root, "2026-11-18_100000_aaaa")
                .worker("worker-1", NOW)
                .test("a", Outcome.PASSED, null)
                .path();
        Files.setLastModifiedTime(open.resolve("journals/worker-1.jsonl"), FileTime.from(NOW.minusSeconds(60)));
        Files.setLastModifiedTime(killed.resolve("journals/worker-1.jsonl"), FileTime.from(NOW.minusSeconds(7_200)));
        try (FileChannel channel = FileChannel.open(locked, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                var held = channel.lock()) {
            assertThat(held.isValid()).isTrue();

            assertThat(byDay(sweeper(new SweepRule(0, null, null, true)).sweep()))
                    .containsEntry("23", "stays: it is still recorded")
                    .containsEntry("19", "stays: it is still recorded")
                    .containsEntry("18", "goes: there are 6 newer ones");
        }
    }

    @Test
    void what_a_killed_sweep_left_is_finished_and_links_are_not_followed() throws Exception {
        Path left = Files.createDirectories(root.resolve(".swept-2026-10-01_100000_aaaa/journals"));
        Files.writeString(left.resolve("worker-1.jsonl"), "half");
        Path mine = Files.createDirectories(root.resolve(".swept-by-me"));
        Path elsewhere = Files.createDirectories(root.resolve("elsewhere"));
        Files.writeString(elsewhere.resolve("letter.txt"), "dear Ada");
        Files.createSymbolicLink(root.resolve("2026-11-20_100000_aaaa/link"), elsewhere);
        Files.createSymbolicLink(root.resolve("2026-11-17_100000_aaaa"), root.resolve("tonight"));

        sweeper(new SweepRule(0, null, null, true)).sweep();

        assertThat(left.getParent()).doesNotExist();
        assertThat(mine).exists();
        assertThat(root.resolve("2026-11-20_100000_aaaa")).doesNotExist();
        assertThat(elsewhere.resolve("letter.txt")).exists();
        assertThat(root.resolve("tonight/run.json")).exists();
        assertThat(Files.isSymbolicLink(root.resolve("2026-11-17_100000_aaaa"))).isTrue();
    }

    private RunSweeper sweeper(SweepRule rule) {
        return new RunSweeper(root, rule, NOW);
    }

    private static Map<String, String> byDay(List<Judged> plan) {
        return plan.stream()
                .collect(Collectors.toMap(
                        one -> one.run().substring(8, 10), one -> (one.goes() ? "goes: " : "stays: ") + one.why()));
    }

    private List<String> names() throws Exception {
        try (var all = Files.list(root)) {
            return all.map(one -> one.getFileName().toString()).sorted().toList();
        }
    }
}
