package dev.verbale.awaitility;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;
import static org.hamcrest.Matchers.equalTo;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.awaitility.Awaitility;
import org.awaitility.core.ConditionEvaluationListener;
import org.awaitility.core.ConditionFactory;
import org.awaitility.core.ConditionTimeoutException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Each wait is a step of the test that waits, and ends as it does unwatched. */
class VerbaleAwaitilityTest {

    private static final AdapterRecorder RECORDER = AdapterRecorder.current();
    private static int tests;

    private final AtomicInteger buckets = new AtomicInteger();

    @AfterEach
    void stop_watching() {
        Awaitility.reset();
    }

    private interface Work {
        void run() throws Exception;
    }

    private static ConditionFactory soon() {
        return await("the tub is full")
                .pollDelay(Duration.ZERO)
                .pollInterval(Duration.ofMillis(1))
                .atMost(Duration.ofSeconds(20));
    }

    private static ConditionFactory inVain() {
        return soon().atMost(Duration.ofMillis(50));
    }

    @Test
    void a_wait_is_a_step_with_how_often_it_looked_and_what_it_found_last() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> soon().until(buckets::incrementAndGet, equalTo(3)));

        assertThat(steps(test)).containsExactly("wait until the tub is full passed");
        assertThat(lines(test))
                .singleElement()
                .asString()
                .startsWith("looked 3 times, ")
                .contains("<3>");
    }

    @Test
    void what_a_condition_does_belongs_to_the_test_that_waits() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> soon().untilAsserted(() -> {
            Verbale.log("bucket {}", buckets.incrementAndGet());
            assertThat(buckets).hasValueGreaterThan(1);
        }));

        assertThat(lines(test)).startsWith("bucket 1", "bucket 2");
        assertThat(steps(test)).containsExactly("wait until the tub is full passed");
    }

    @Test
    void a_wait_in_vain_says_what_it_found_last() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> assertThatThrownBy(() -> inVain().until(() -> "half", equalTo("full")))
                .isInstanceOf(ConditionTimeoutException.class));

        assertThat(steps(test)).containsExactly("wait until the tub is full errored");
        Entry.StepEntry step = (Entry.StepEntry) test.entries().get(0);
        assertThat(step.failure().type()).isEqualTo(ConditionTimeoutException.class.getName());
        assertThat(step.failure().stack()).contains(VerbaleAwaitilityTest.class.getName());
        assertThat(lines(test)).singleElement().asString().contains("half");
    }

    @Test
    void what_does_not_hold_as_long_as_it_should_is_no_step_that_passed_alone() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> assertThatThrownBy(
                        () -> inVain().during(Duration.ofMillis(40)).until(() -> buckets.incrementAndGet() % 2 == 0))
                .isInstanceOf(ConditionTimeoutException.class));

        assertThat(steps(test)).last().isEqualTo("wait until the tub is full errored");
    }

    @Test
    void a_wait_whose_condition_throws_does_not_swallow_the_next_one() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> {
            assertThatThrownBy(() -> soon().until(() -> {
                        throw new IllegalStateException("no tub");
                    }))
                    .hasMessage("no tub");
            await("it rains").until(() -> true);
        });

        assertThat(steps(test)).containsExactly("wait until the tub is full unfinished", "wait until it rains passed");
    }

    @Test
    void a_condition_that_waits_itself_has_its_own_step() throws Exception {
        VerbaleAwaitility.watch();

        TestResult test = recorded(() -> soon().until(() -> {
            await("the tap is open").until(() -> true);
            return buckets.incrementAndGet() == 2;
        }));

        assertThat(steps(test))
                .containsExactlyInAnyOrder(
                        "wait until the tub is full passed",
                        "wait until the tap is open passed",
                        "wait until the tap is open passed");
    }

    @Test
    void on_threads_of_the_suites_own_a_wait_has_a_listener_for_itself() throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(1);
        try {
            TestResult test = recorded(() -> {
                for (String name : List.of("one", "two"))
                    await(name)
                            .pollExecutorService(pool)
                            .conditionEvaluationListener(VerbaleAwaitility.listener())
                            .until(() -> true);
            });

            assertThat(steps(test)).containsExactly("wait until one passed", "wait until two passed");
        } finally {
            pool.shutdown();
        }
    }

    /** The same waits bare and watched: what comes out of them, and what the suite's own listener hears. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void waits_end_as_they_do_unwatched(boolean inSameThread) throws Exception {
        List<String> bare = ends(inSameThread, null);
        List<String> watched = new ArrayList<>();
        recorded(() -> watched.addAll(ends(inSameThread, "watched")));

        assertThat(watched).isEqualTo(bare).hasSizeGreaterThan(10);
    }

    private List<String> ends(boolean inSameThread, String watched) {
        List<String> ends = new ArrayList<>();
        ConditionEvaluationListener<Object> own = condition -> ends.add("heard " + condition.isSatisfied());
        if (watched == null) Awaitility.setDefaultConditionEvaluationListener(own);
        else VerbaleAwaitility.watch(own);
        var count = new AtomicInteger();
        List<Work> waits = List.of(
                () -> factory(inSameThread).until(count::incrementAndGet, equalTo(4)),
                () -> factory(inSameThread).until(() -> count.incrementAndGet() > 6),
                () -> factory(inSameThread)
                        .untilAsserted(() -> assertThat(count.incrementAndGet()).isGreaterThan(8)),
                () -> factory(inSameThread).ignoreExceptions().until(() -> {
                    if (count.incrementAndGet() < 11) throw new IllegalStateException("too early");
                    return true;
                }),
                () -> factory(inSameThread)
                        .failFast("the tub leaks", () -> true)
                        .until(() -> false),
                () -> factory(inSameThread).until(() -> {
                    throw new IllegalArgumentException("broken");
                }),
                () -> factory(inSameThread)
                        .atMost(Duration.ofMillis(30))
                        .pollDelay(Duration.ZERO) // once, however slow the machine is
                        .pollInterval(Duration.ofMillis(400))
                        .until(
                                () -> new Object() {
                                    @Override
                                    public String toString() {
                                        throw new IllegalStateException("no text");
                                    }
                                },
                                equalTo("")));
        for (Work wait : waits) {
            try {
                wait.run();
                ends.add("held");
            } catch (Throwable thrown) {
                ends.add(thrown.getClass().getName());
            }
        }
        Awaitility.reset();
        return ends;
    }

    private static ConditionFactory factory(boolean inSameThread) {
        ConditionFactory factory = soon();
        return inSameThread ? factory.pollInSameThread() : factory;
    }

    private static TestResult recorded(Work work) throws Exception {
        String name = "test " + ++tests;
        Scope test =
                RECORDER.startTest(RECORDER.run(), TestDescriptor.of(name, name).build());
        try {
            work.run();
        } finally {
            RECORDER.endTest(test, TestEnd.passed());
        }
        Run run = RunReader.read(RECORDER.folder());
        return run.tests().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static List<String> steps(TestResult test) {
        return test.entries().stream()
                .filter(Entry.StepEntry.class::isInstance)
                .map(entry -> ((Entry.StepEntry) entry).name() + " "
                        + ((Entry.StepEntry) entry).outcome().word())
                .toList();
    }

    private static List<String> lines(TestResult test) {
        return test.entries().stream()
                .filter(Entry.LogEntry.class::isInstance)
                .map(entry -> ((Entry.LogEntry) entry).text())
                .toList();
    }
}
