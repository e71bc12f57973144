package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestIdentified;
import dev.verbale.event.TestStarted;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
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
            case 0, 1, 2 ->
                TestStarted.of(at, id, "k" + random.nextInt(5), "n")
                        .in(in)
                        .thread("main")
                        .build();
            case 3, 4, 5 -> TestEnded.of(at, id, outcome).build();
            case 6, 7 -> StepStarted.of(at, id, StepKind.ACTION, "s").in(in).build();
            case 8, 9 -> StepEnded.of(at, id, outcome).build();
            case 10 -> ContainerStarted.of(at, id, "c", "C").in(in).build();
            case 11 -> ContainerEnded.of(at, id, outcome).build();
            case 12 -> LogWritten.of(at, in, "line").build();
            case 13 -> new AttachmentPending(at, id, in, "video", AttachmentKind.VIDEO);
            case 14 ->
                AttachmentStored.of(
                                at, in, "p", "attachment", new AttachmentStored.StoredFile("x", "text/plain", 1, null))
                        .pending(id)
                        .build();
            case 15 ->
                new AboutStated(
                        at,
                        id,
                        About.of().text("about").severity("grave").owner("Ada").build());
            case 16 ->
                random.nextBoolean()
                        ? new TestIdentified(at, id, "k" + random.nextInt(5), "m")
                        : new StepBudgeted(at, id, 7);
            default ->
                random.nextBoolean()
                        ? new DataNamed(at, in, "plot", "12")
                        : random.nextBoolean()
                                ? CheckMade.of(at, in, "c", outcome).build()
                                : ExchangeMade.of(at, new ExchangeMade.Request("GET", "http://orto/", List.of(), null))
                                        .in(in)
                                        .client("c")
                                        .timing(new ExchangeMade.Timing(500L, Map.of()))
                                        .build();
        };
    }

    private void sameAsWhole(Path run) throws Exception {
        Run whole = RunReader.read(run);

        assertThat(RunReader.read(run, test -> test)).isEqualTo(whole);
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

        assertThatThrownBy(() -> RunReader.read(sample.path(), test -> {
                    came.add(test.name());
                    if (came.size() == 3) throw new IllegalStateException("enough");
                    return test;
                }))
                .hasMessage("enough");

        assertThat(came).containsExactly("t0", "t1", "t2");
    }

    @Test
    void what_is_kept_of_a_test_is_all_the_run_has_of_it() throws Exception {
        SampleRun sample = SampleRun.in(root, "run");
        sample.write(
                TestStarted.of(1_000, 1, "k.waters", "waters").thread("main").build());
        sample.write(
                StepStarted.of(1_100, 2, StepKind.ACTION, "Open the tap").in(1).build());
        sample.write(TestEnded.of(2_000, 1, Outcome.PASSED).build());
        sample.test("digs", Outcome.FAILED, null);
        sample.write(
                TestStarted.of(3_000, 50, "k.waters", "waters").thread("main").build());
        sample.write(new DataNamed(3_100, 50, "plot", "12"));
        sample.write(TestEnded.of(3_200, 50, Outcome.FAILED).build());
        sample.write(StepEnded.of(4_000, 2, Outcome.PASSED).build());

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
        sample.write(
                TestStarted.of(1_000, 1, "k.waters", "waters").thread("main").build());
        sample.write(new AttachmentPending(1_100, 1, 7, "video", AttachmentKind.VIDEO));
        sample.write(TestEnded.of(2_000, 1, Outcome.PASSED).build());
        sample.write(TestStarted.of(3_000, 2, "k.digs", "digs").thread("main").build());
        sample.write(TestEnded.of(4_000, 2, Outcome.PASSED).build());
        var file = new AttachmentStored.StoredFile("x", "text/plain", 1, null);
        sample.write(AttachmentStored.of(5_000, 1, "video", AttachmentKind.VIDEO, file)
                .pending(7)
                .build());
        sample.read();
        List<String> came = new ArrayList<>();
        TestKeeper keeper = test -> {
            came.add(test.name() + " with " + test.entries().size());
            return test;
        };

        RunReader.read(sample.path(), keeper);
        assertThat(came).containsExactly("digs with 0", "waters with 1"); // it was known to be on its way

        came.clear();
        sample.write(LogWritten.of(6_000, 2, "late").build());
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
