package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.About;
import dev.verbale.event.AboutStated;
import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.LogWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestIdentified;
import dev.verbale.event.TestStarted;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Tests that come one by one are those of the run that is read whole, whatever its journals hold. */
class RunStreamTest {

    private static final int EVENTS = 120;

    @TempDir
    Path root;

    /** More than a recorder would write: ids that are used twice, ends without beginnings, what comes late. */
    private static Event anything(Random random, int at) {
        int id = random.nextInt(30);
        int in = random.nextInt(30);
        Outcome outcome = random.nextBoolean() ? Outcome.PASSED : Outcome.FAILED;
        return switch (random.nextInt(18)) {
            case 0, 1, 2 -> new TestStarted(at, id, in, "k" + random.nextInt(5), "n", null, null, "main", List.of());
            case 3, 4, 5 -> new TestEnded(at, id, outcome, null, null);
            case 6, 7 -> new StepStarted(at, id, in, StepKind.ACTION, "s", null);
            case 8, 9 -> new StepEnded(at, id, outcome, null, null);
            case 10 -> new ContainerStarted(at, id, in, "c", "C", null, null);
            case 11 -> new ContainerEnded(at, id, outcome, null, null, 0);
            case 12 -> new LogWritten(at, in, null, null, "line", null, Map.of(), null);
            case 13 -> new AttachmentPending(at, id, in, "video", AttachmentStored.VIDEO);
            case 14 ->
                new AttachmentStored(
                        at, in, "p", "attachment", new AttachmentStored.StoredFile("x", "text/plain", 1, null), id, 0);
            case 15 -> new AboutStated(at, id, new About("about", "grave", "Ada", List.of()));
            case 16 ->
                random.nextBoolean()
                        ? new TestIdentified(at, id, "k" + random.nextInt(5), "m")
                        : new StepBudgeted(at, id, 7);
            default ->
                random.nextBoolean()
                        ? new DataNamed(at, in, "plot", "12")
                        : random.nextBoolean()
                                ? new CheckMade(at, in, "c", outcome, null, 0)
                                : new ExchangeMade(
                                        at,
                                        0,
                                        in,
                                        null,
                                        "c",
                                        null,
                                        new ExchangeMade.Request("GET", "http://orto/", List.of(), null),
                                        null,
                                        new ExchangeMade.Timing(500L, Map.of()),
                                        null,
                                        null,
                                        Map.of());
        };
    }

    private void sameAsWhole(Path run) throws Exception {
        Run whole = RunReader.read(run);
        List<TestResult> one = new ArrayList<>();

        Run rest = RunReader.stream(run, one::add);
        assertThat(RunReader.read(run, test -> test)).isEqualTo(whole);

        assertThat(one).containsExactlyInAnyOrderElementsOf(whole.tests());
        assertThat(rest.problems()).isEqualTo(whole.problems());
        assertThat(rest)
                .isEqualTo(new Run(
                        whole.name(),
                        whole.folder(),
                        whole.started(),
                        whole.duration(),
                        whole.facts(),
                        whole.workers(),
                        List.of(),
                        whole.containers(),
                        whole.entries(),
                        whole.problems()));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
    void any_events_in_any_order_come_to_the_same(int seed) throws Exception {
        for (int i = 0; i < 30; i++) {
            var random = new Random(seed * 1_000L + i);
            SampleRun sample = SampleRun.in(root, "run" + i);
            for (int at = 1; at < EVENTS; at++) {
                if (at == EVENTS / 2) sample.worker("worker-2", SampleRun.WALL.plusMillis(random.nextInt(3)));
                sample.write(anything(random, at * 100));
            }
            sample.read();
            sameAsWhole(sample.path());
            Path journal = sample.path().resolve("journals/worker-1.jsonl");
            byte[] bytes = Files.readAllBytes(journal);
            for (int hits = 0; hits < 5; hits++)
                bytes[random.nextInt(bytes.length)] = (byte) ('0' + random.nextInt(75));
            Files.write(journal, bytes);
            sameAsWhole(sample.path());
        }
    }

    @Test
    void a_test_comes_when_it_is_whole_and_not_at_the_end() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        for (int i = 0; i < 50; i++) sample.test("t" + i, Outcome.PASSED, null);
        sample.read();
        List<String> came = new ArrayList<>();

        assertThatThrownBy(() -> RunReader.stream(sample.path(), test -> {
                    came.add(test.name());
                    if (came.size() == 3) throw new IllegalStateException("enough");
                }))
                .hasMessage("enough");

        assertThat(came).containsExactly("t0", "t1", "t2");
    }

    @Test
    void what_is_kept_of_a_test_is_all_the_run_has_of_it() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        sample.write(new TestStarted(1_000, 1, 0, "k.waters", "waters", null, null, "main", List.of()));
        sample.write(new StepStarted(1_100, 2, 1, StepKind.ACTION, "Open the tap", null));
        sample.write(new TestEnded(2_000, 1, Outcome.PASSED, null, null));
        sample.test("digs", Outcome.FAILED, null);
        sample.write(new TestStarted(3_000, 50, 0, "k.waters", "waters", null, null, "main", List.of()));
        sample.write(new DataNamed(3_100, 50, "plot", "12"));
        sample.write(new TestEnded(3_200, 50, Outcome.FAILED, null, null));
        sample.write(new StepEnded(4_000, 2, Outcome.PASSED, null, null));

        Run whole = sample.read();
        Run failures = RunReader.read(sample.path(), TestKeeper.FAILURES);

        assertThat(failures.tests())
                .containsExactly(
                        whole.tests().get(0).withEntries(List.of()),
                        whole.tests().get(1),
                        whole.tests().get(2));
        assertThat(whole.tests().get(1).attempt().number()).isEqualTo(2);
        assertThat(RunReader.read(sample.path(), TestKeeper.ENDS).tests())
                .allMatch(test -> test.entries().isEmpty());
    }

    @Test
    void a_test_of_which_something_comes_late_comes_again_with_it() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        sample.write(new TestStarted(1_000, 1, 0, "k.waters", "waters", null, null, "main", List.of()));
        sample.write(new AttachmentPending(1_100, 1, 7, "video", AttachmentStored.VIDEO));
        sample.write(new TestEnded(2_000, 1, Outcome.PASSED, null, null));
        sample.write(new TestStarted(3_000, 2, 0, "k.digs", "digs", null, null, "main", List.of()));
        sample.write(new TestEnded(4_000, 2, Outcome.PASSED, null, null));
        var file = new AttachmentStored.StoredFile("x", "text/plain", 1, null);
        sample.write(new AttachmentStored(5_000, 1, "video", AttachmentStored.VIDEO, file, 7, 0));
        sample.read();
        List<String> came = new ArrayList<>();
        TestKeeper keeper = test -> {
            came.add(test.name() + " with " + test.entries().size());
            return test;
        };

        RunReader.read(sample.path(), keeper);
        assertThat(came).containsExactly("digs with 0", "waters with 1"); // it was known to be on its way

        came.clear();
        sample.write(new LogWritten(6_000, 2, null, null, "late", null, Map.of(), null));
        sample.read();
        RunReader.read(sample.path(), keeper);
        assertThat(came).endsWith("waters with 1", "digs with 1");
    }

    @Test
    void what_a_run_begins_with_is_known_before_its_tests() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        sample.test("waters", Outcome.PASSED, null);
        sample.worker("worker-2", SampleRun.WALL.minusSeconds(3));
        sample.test("digs", Outcome.PASSED, null);
        Run whole = sample.read();
        List<RunBeginning> begun = new ArrayList<>();

        Run read = RunReader.read(sample.path(), new TestKeeper() {
            @Override
            public void begins(RunBeginning run) {
                begun.add(run);
            }

            @Override
            public TestResult keep(TestResult test) {
                assertThat(begun).hasSize(1);
                return test;
            }
        });

        assertThat(read).isEqualTo(whole);
        assertThat(begun.get(0).started()).isEqualTo(SampleRun.WALL.minusSeconds(3));
        assertThat(begun.get(0).folder()).isEqualTo(whole.folder());
    }
}
