package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Problem;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What many runs together tell. */
class HistoryTest {

    private static final Predicate<RunSummary> ALL = run -> true;

    @TempDir
    Path folder;

    @Test
    void a_test_has_its_row_of_outcomes_and_the_first_failure_of_its_present_streak() {
        History history = new Nights()
                .test("steady", "......")
                .test("broken", "..F.FF")
                .test("repaired", "FFF...")
                .test("new", "   FsF")
                .test("never", "FFFFFF")
                .history();

        assertThat(test(history, "broken").row()).isEqualTo("..F.FF");
        assertThat(test(history, "broken").failingSince().run().name()).isEqualTo("2026-10-05_221500_aaaa");
        assertThat(test(history, "broken").lastPassed().run().name()).isEqualTo("2026-10-04_221500_aaaa");
        assertThat(test(history, "repaired").failingSince()).isNull();
        assertThat(test(history, "new").failingSince().run().name()).isEqualTo("2026-10-04_221500_aaaa");
        assertThat(test(history, "new").row()).isEqualTo("F-F");
        assertThat(test(history, "never").lastPassed()).isNull();
        assertThat(history.test("unknown")).isEmpty();
        assertThat(history.tests()).containsExactly("steady", "broken", "repaired", "never", "new");
    }

    @Test
    void flaky_is_what_fails_now_and_then_and_not_what_is_broken() {
        History history = new Nights()
                .test("steady", ".".repeat(40))
                .test("broken for a week", ".".repeat(20) + "FFFFFFF" + ".".repeat(13))
                .test("always broken", "F".repeat(40))
                .test("every fifth", "...F.".repeat(8))
                .test("by another attempt", "....~".repeat(8))
                .test("one bad night of five", "..F..")
                .history();

        assertThat(history.flaky(10))
                .extracting(TestHistory::key)
                .containsExactly("every fifth", "by another attempt", "one bad night of five");
        assertThat(history.flaky(1)).hasSize(1);
        Flakiness flakiness = history.flakiness("every fifth");
        assertThat(flakiness.failures()).isEqualTo(8);
        assertThat(flakiness.runs()).isEqualTo(40);
    }

    @Test
    void a_test_that_takes_longer_now_is_found_and_noise_is_not() {
        Random random = new Random(7);
        History history = new Nights()
                .takes("slower by half", noisy(random, 40, 33, 1.5))
                .takes("as ever", noisy(random, 40, 33, 1.0))
                .takes("one slow night", noisy(random, 40, 39, 9.0))
                .takes("held up in two of four", heldUp(noisy(random, 40, 39, 1.0), 36, 38))
                .takes("faster", noisy(random, 40, 33, 0.5))
                .takes("too young", noisy(random, 8, 4, 2.0))
                .history();

        assertThat(history.slower(10)).extracting(TestHistory::key).containsExactly("slower by half");
        DurationStep step = history.durationStep("slower by half").orElseThrow();
        assertThat(step.factor()).isCloseTo(1.5, within(0.15));
        assertThat(step.before()).isBetween(Duration.ofMillis(900), Duration.ofMillis(1_100));
        assertThat(history.durationStep("faster").orElseThrow().factor()).isCloseTo(0.5, within(0.1));
    }

    @Test
    void a_step_that_takes_longer_is_found_in_whichever_tests_have_it(@TempDir Path path) throws Exception {
        Random random = new Random(7);
        int[] slow = noisy(random, 40, 33, 1.5);
        int[] steady = noisy(random, 40, 33, 1.0);
        var folder = new HistoryFolder(path);
        List<RunDigest> digests =
                new Nights().test("a", ".".repeat(40)).test("b", ".".repeat(40)).digests();
        for (int night = 0; night < 40; night++) {
            RunDigest digest = digests.get(night);
            var times = List.of(new StepTime("log in", slow[night]), new StepTime("water", steady[night]));
            List<TestDigest> tests = digest.tests().stream()
                    .map(test -> new TestDigest(
                            test.key(), test.name(), test.outcome(), test.millis(), 1, false, null, times))
                    .toList();
            folder.add(new RunDigest(
                    digest.run(), digest.started(), digest.duration(), digest.facts(), true, false, tests, List.of()));
        }

        List<SlowerStep> slower = SlowerStep.in(folder, folder.read(problem -> {}), 10, problem -> {});

        assertThat(slower).singleElement().satisfies(one -> {
            assertThat(one.name()).isEqualTo("log in");
            assertThat(one.tests()).isEqualTo(2);
            assertThat(one.step().factor()).isCloseTo(1.5, within(0.15));
        });
        assertThat(SlowerStep.in(folder, folder.read(problem -> {}).only(run -> false), 10, problem -> {}))
                .isEmpty();
    }

    private static int[] heldUp(int[] millis, int... nights) {
        for (int night : nights) millis[night] *= 4;
        return millis;
    }

    private static int[] noisy(Random random, int runs, int from, double factor) {
        return IntStream.range(0, runs)
                .map(run -> (int) (1_000 * Math.exp(random.nextGaussian() * 0.1) * (run >= from ? factor : 1)))
                .toArray();
    }

    @Test
    void a_reason_has_its_first_and_last_day() {
        History history = new Nights()
                .test("a", ".FF.F.")
                .test("b", "...FF.")
                .test("c", "F.....")
                .because("a", "swap")
                .because("b", "swap")
                .because("c", "shed")
                .history();

        assertThat(history.reasons())
                .extracting(reason -> reason.id() + " " + reason.first().name().substring(8, 10) + "-"
                        + reason.last().name().substring(8, 10) + " " + reason.runs() + " " + reason.failures())
                .containsExactly("swap 02-05 4 5", "shed 01-01 1 1");
        assertThat(history.reason("swap").orElseThrow().stretch())
                .as("it is over")
                .isZero();
        ReasonHistory going = history.only(run -> run.name().compareTo("2026-10-06") < 0)
                .reason("swap")
                .orElseThrow();
        assertThat(going.stretch()).isEqualTo(4);
        assertThat(going.since().name()).startsWith("2026-10-02");
        assertThat(history.reason("swap").orElseThrow().title()).isEqualTo("because of swap");
        assertThat(history.only(run -> run.name().startsWith("2026-10-01")).reason("swap"))
                .isEmpty();
    }

    @Test
    void a_folder_remembers_each_run_once_and_two_folders_are_joined_by_copying() throws Exception {
        List<RunDigest> digests = new Nights()
                .test("a", "..F~.")
                .test("b", "....F")
                .because("b", "shed")
                .digests();
        var one = new HistoryFolder(folder.resolve("one/.verbale/history"));
        var two = new HistoryFolder(folder.resolve("two"));
        List<RunDigest> shuffled = new ArrayList<>(digests);
        Collections.shuffle(shuffled, new Random(3));
        for (RunDigest digest : shuffled.subList(0, 3)) one.add(digest);
        for (RunDigest digest : shuffled.subList(2, 5)) two.add(digest);

        for (Path file : two.files())
            Files.copy(file, one.path().resolve(file.getFileName()), java.nio.file.StandardCopyOption.REPLACE_EXISTING);

        List<Problem> problems = new ArrayList<>();
        History history = one.read(problems::add);
        assertThat(problems).isEmpty();
        assertThat(history.runs()).hasSize(5);
        assertThat(test(history, "a").row()).isEqualTo("..F~.");
        assertThat(test(history, "b").appearances().get(4).reason()).isEqualTo("shed");
        assertThat(folder.resolve("one/.verbale/.gitignore")).hasContent("*");
        assertThat(folder.resolve(".gitignore")).doesNotExist();
    }

    /** As where {@code verbale.run} is the same word every night. */
    @Test
    void nights_that_share_a_name_are_remembered_each() throws Exception {
        var history = new HistoryFolder(folder);
        for (RunDigest night : new Nights().test("a", ".F.").digests())
            history.add(new RunDigest(
                    "to night",
                    night.started(),
                    night.duration(),
                    night.facts(),
                    true,
                    false,
                    night.tests(),
                    List.of()));

        assertThat(test(history.read(problem -> {}), "a").row()).isEqualTo(".F.");
        assertThat(history.digest("to night", problem -> {}).orElseThrow().started())
                .isEqualTo(Nights.FIRST.plus(Duration.ofDays(2)));
        assertThat(history.digest("to night", Nights.FIRST, problem -> {})).isPresent();
        assertThat(history.digest("night", problem -> {})).isEmpty();
    }

    @Test
    void what_is_no_digest_is_named_and_the_rest_is_there() throws Exception {
        var history = new HistoryFolder(folder);
        for (RunDigest digest : new Nights().test("a", "...").digests()) history.add(digest);
        Files.writeString(folder.resolve("foreign.digest.jsonl.gz"), "not gzipped");
        Files.writeString(folder.resolve("notes.txt"), "nothing of ours");
        Files.createDirectory(folder.resolve("folder.digest.jsonl.gz"));
        Files.createSymbolicLink(
                folder.resolve("link.digest.jsonl.gz"), history.files().get(0));

        List<Problem> problems = new ArrayList<>();

        assertThat(history.read(problems::add).runs()).hasSize(3);
        assertThat(problems)
                .extracting(Problem::sentence)
                .containsExactlyInAnyOrder(
                        "folder.digest.jsonl.gz: is no regular file, and left out",
                        "foreign.digest.jsonl.gz: cannot be read (Not in GZIP format)",
                        "link.digest.jsonl.gz: is no regular file, and left out");
    }

    private static TestHistory test(History history, String key) {
        return history.test(key).orElseThrow();
    }

    @Test
    void a_test_that_moved_to_another_module_or_was_known_without_one_goes_on() {
        Instant day = Instant.parse("2026-11-01T00:00:00Z");
        History history = History.of(List.of(
                of("1", day, "Bed.grows()", "Gate.opens()"),
                of("2", day.plusSeconds(60), "[beds] Bed.grows()", "[beds] Gate.opens()", "[shed] Key.turns()"),
                of("3", day.plusSeconds(120), "[beds] Bed.grows()", "[shed] Gate.opens()", "[shed] Key.turns()"),
                of("4", day.plusSeconds(180), "[shed] Bed.grows()", "[shed] Gate.opens()")));

        assertThat(history.test("[beds] Bed.grows()").orElseThrow().appearances())
                .hasSize(3);
        assertThat(history.test("[shed] Gate.opens()").orElseThrow().appearances())
                .as("known under no module, then in another")
                .hasSize(4);
        assertThat(history.test("[shed] Bed.grows()").orElseThrow().appearances())
                .as("the other module did not run: nobody knows whether it has it still")
                .hasSize(1);
    }

    private static RunDigest of(String name, Instant started, String... keys) {
        return new RunDigest(
                name,
                started,
                Duration.ofSeconds(1),
                Map.of(),
                true,
                false,
                Stream.of(keys)
                        .map(key -> new RunDigest.TestDigest(key, key, Outcome.PASSED, 1, 1, false, null, List.of()))
                        .toList(),
                List.of());
    }
}
