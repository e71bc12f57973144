package dev.verbale.junit4;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Launched;
import dev.verbale.testing.Outline;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What JUnit 4 runs is in the journal, by the listener, by the rule, and by the Vintage engine. */
class JUnit4Test {

    @TempDir
    Path root;

    @Test
    void every_kind_of_test_ends_as_junit_says() throws Exception {
        Launched launched = Launched.once(Launched.classPath(), Launch.class, "listener");

        assertThat(launched.run().problems()).isEmpty();
        TestResult passed = launched.test("passes");
        assertThat(passed.key()).isEqualTo("sample.OldSample.passes");
        assertThat(passed.path()).containsExactly("OldSample");
        assertThat(passed.tags()).containsExactly("sample.OldSample$Garden");
        assertThat(passed.about().owner()).isEqualTo("Ada");
        assertThat(Outline.of(passed.entries())).containsExactly("Look passed", "  - three leaves");
        assertThat(launched.test("fails").failure())
                .extracting(Failure::expected, Failure::actual)
                .containsExactly("Ada", "Dario");
        assertThat(List.of("breaks", "givesUp", "waits", "throwsAsExpected", "hangs", "grows[Kale]", "sows"))
                .map(launched::test)
                .extracting(TestResult::outcome, TestResult::reason)
                .containsExactly(
                        tuple(Outcome.ERRORED, null),
                        tuple(Outcome.ABORTED, "needs rain"),
                        tuple(Outcome.SKIPPED, "next season"),
                        tuple(Outcome.PASSED, null),
                        tuple(Outcome.ERRORED, null),
                        tuple(Outcome.FAILED, null),
                        tuple(Outcome.ABORTED, "not the season"));
        assertThat(Outline.of(launched.test("hangs").entries())).containsExactly("- waits for rain");
        assertThat(launched.test("digs"))
                .extracting(TestResult::outcome, TestResult::reason)
                .containsExactly(Outcome.SKIPPED, "closed in winter");
        assertThat(launched.run().brokenContainers())
                .extracting(
                        ContainerResult::name, container -> container.failure().message())
                .containsExactly(tuple("OldSample.Broken", "no tools"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"listener", "vintage"})
    void each_failure_of_a_test_is_told(String how) throws Exception {
        Launched launched = Launched.once(Launched.classPath(), Launch.class, how);

        assertThat(messages(launched.test("collects").failure())).contains("the bed is dry", "the shed is locked");
        assertThat(messages(launched.test("failsAndCannotTidyUp").failure())).contains("the bed is dry", "no brush");
        assertThat(launched.test("collects").outcome()).isEqualTo(Outcome.FAILED);
    }

    private static List<String> messages(Failure failure) {
        return Stream.concat(
                        Stream.of(String.valueOf(failure.message())),
                        failure.gathered().stream().flatMap(one -> messages(one).stream()))
                .toList();
    }

    @Test
    void the_rule_captures_evidence_before_the_rules_around_it_tear_down() throws Exception {
        for (String how : List.of("listener", "rule", "vintage")) {
            Launched launched = Launched.once(Launched.classPath(), Launch.class, how);

            assertThat(launched.run().problems()).as(how).isEmpty();
            assertThat(Outline.of(launched.test("loses").entries())).as(how).containsExactly("- sees the page");
            assertThat(launched.attempts("loses")).as(how).hasSize(1);
            assertThat(Outline.of(launched.test("gathersChecks").entries()))
                    .as(how)
                    .contains("check The gate is shut failed", "- goes on");
            assertThat(launched.test("isKnownToFail").outcome()).as(how).isEqualTo(Outcome.EXPECTED_FAILURE);
        }
    }

    @Test
    void by_the_vintage_engine_it_is_the_same_record_once() throws Exception {
        Launched listener = Launched.once(Launched.classPath(), Launch.class, "listener");
        Launched vintage = Launched.once(Launched.classPath(), Launch.class, "vintage");

        assertThat(vintage.recordedCounts()).isEqualTo(vintage.counts());
        assertThat(vintage.run().tests())
                .extracting(TestResult::id)
                .containsExactlyInAnyOrderElementsOf(listener.run().tests().stream()
                        .map(TestResult::id)
                        .filter(id -> !id.contains("GivenUp")) // the engine counts the class, and none of its tests
                        .toList());
        assertThat(vintage.container("GivenUp").outcome()).isEqualTo(Outcome.ABORTED);
    }

    @Test
    void a_description_without_annotations_is_recorded_as_well() throws Exception {
        Launched launched = Launched.jvm(root, Launch.class, "bare-descriptions");

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.run().tests())
                .extracting(TestResult::name, TestResult::outcome, TestResult::reason)
                .containsExactly(tuple("passes", Outcome.PASSED, null), tuple("waits", Outcome.SKIPPED, "next season"));
        assertThat(launched.run().facts().get("not recorded")).endsWith("put verbale-junit on the class path");
    }
}
