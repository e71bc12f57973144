package dev.verbale.testng;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.TestResult;
import dev.verbale.results.selection.TestSelection;
import dev.verbale.testing.Launched;
import dev.verbale.testing.Outline;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import sample.BrokenSample;
import sample.FactorySample;
import sample.FixturesSample;
import sample.InnerSample;
import sample.OutcomesSample;

/** What TestNG runs is in the journal, with the dependency alone, and is counted as TestNG counts it. */
class VerbaleListenerTest {

    private static final String OUTCOMES = "sample.OutcomesSample.";

    @TempDir
    Path root;

    static List<String> versions() {
        return Versions.all();
    }

    @ParameterizedTest
    @MethodSource("versions")
    void every_kind_of_test_ends_as_testng_says(String version) throws Exception {
        Launched launched = Versions.once(version, OutcomesSample.class);

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());

        TestResult passed = launched.test("passes");
        assertThat(passed.key()).isEqualTo(OUTCOMES + "passes()");
        assertThat(passed.path()).containsExactly("OutcomesSample");
        assertThat(passed.tags()).containsExactly("bean", "garden");
        assertThat(passed.about().text()).isEqualTo("A bean grows in a week");
        assertThat(Outline.of(passed.entries())).containsExactly("- four leaves", "- three leaves");

        TestResult failed = launched.test("fails");
        assertThat(failed.outcome()).isEqualTo(Outcome.FAILED);
        Failure failure = failed.failure();
        assertThat(failure).extracting(Failure::expected, Failure::actual).containsExactly("Ada", "Dario");
        assertThat(failure.message()).startsWith("who waters");
        assertThat(launched.test("breaks").outcome()).isEqualTo(Outcome.ERRORED);

        assertThat(launched.test("givesUp").outcome()).isEqualTo(Outcome.ABORTED);
        assertThat(launched.test("givesUp").reason()).isEqualTo("needs rain");
        assertThat(Outline.of(launched.test("givesUp").entries())).containsExactly("Look at the sky aborted");

        assertThat(launched.test("throwsAsExpected").outcome()).isEqualTo(Outcome.PASSED);
        assertThat(launched.test("isKnownToFail").outcome()).isEqualTo(Outcome.EXPECTED_FAILURE);
        assertThat(launched.test("isKnownToFail").reason()).isEqualTo("the pump is broken");
        assertThat(launched.test("isKnownToFail").about().owner()).isEqualTo("Ada");
        assertThat(launched.test("isWronglyExpectedToFail").reason()).contains("the annotation can go");
        assertThat(launched.test("gathersChecks").outcome()).isEqualTo(Outcome.FAILED);
        assertThat(Outline.of(launched.test("gathersChecks").entries()))
                .containsExactly("check The gate is shut failed", "- goes on");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void what_depends_on_a_failure_names_it(String version) throws Exception {
        Launched launched = Versions.once(version, OutcomesSample.class);

        assertThat(List.of("followsAFailure", "followsASkip"))
                .map(launched::test)
                .extracting(
                        TestResult::outcome,
                        TestResult::reason,
                        test -> test.end().blockedBy())
                .containsExactly(
                        tuple(
                                Outcome.SKIPPED,
                                "It depends on fails, which did not pass",
                                List.of(OUTCOMES + "fails()")),
                        tuple(
                                Outcome.SKIPPED,
                                "It depends on followsAFailure, which did not pass",
                                List.of(OUTCOMES + "followsAFailure()")));
        assertThat(launched.test("followsAGroup").outcome()).isEqualTo(Outcome.PASSED);
        if (version.isEmpty()) // older ones say nothing of it
        assertThat(launched.test("hasNoData").reason()).contains("the seed box is empty");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void a_time_limit_keeps_what_happens_on_its_thread_with_the_test(String version) throws Exception {
        Launched launched = Versions.once(version, OutcomesSample.class);

        TestResult hung = launched.test("hangs");
        assertThat(hung.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(hung.failure().type()).contains("ThreadTimeoutException");
        assertThat(Outline.of(hung.entries())).containsExactly("- waits for rain");
        assertThat(Outline.of(launched.test("isInTime").entries()))
                .hasSize(2)
                .first()
                .isEqualTo("Water passed");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void rows_and_invocations_are_tests_and_retries_are_attempts(String version) throws Exception {
        Launched launched = Versions.once(version, OutcomesSample.class);

        TestResult kale = launched.test("grows [2] Kale, 3");
        assertThat(kale.key()).isEqualTo(OUTCOMES + "grows(java.lang.String, int)#2");
        assertThat(kale.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(Outline.of(kale.entries())).containsExactly("crop=Kale", "plot=3");

        assertThat(launched.run().tests())
                .filteredOn(test -> "growsInParallel".equals(test.methodName()))
                .hasSize(40)
                .allSatisfy(test -> {
                    String row = test.key().substring(test.key().indexOf('#') + 1);
                    String crop = "crop " + (Integer.parseInt(row) - 1);
                    assertThat(Outline.of(test.entries()))
                            .contains("crop=" + crop, "Plant passed", "  - plants " + crop)
                            .hasSize(4);
                });

        for (String method : List.of("mayFail", "drawsInAPool"))
            assertThat(launched.run().tests())
                    .filteredOn(test -> method.equals(test.methodName()))
                    .extracting(TestResult::key)
                    .containsExactlyInAnyOrder(
                            OUTCOMES + method + "()#1",
                            OUTCOMES + method + "()#2",
                            OUTCOMES + method + "()#3",
                            OUTCOMES + method + "()#4");
        assertThat(launched.test("mayFail invocation 2").outcome()).isEqualTo(Outcome.EXPECTED_FAILURE);

        assertThat(launched.attempts("flickers"))
                .extracting(TestResult::outcome, TestResult::superseded)
                .containsExactly(tuple(Outcome.FAILED, true), tuple(Outcome.PASSED, false));
        assertThat(launched.attempts("failsAgain [2] Kale, 3"))
                .extracting(TestResult::outcome, TestResult::id)
                .containsExactly(
                        tuple(Outcome.FAILED, OUTCOMES + "failsAgain(java.lang.String, int)#2"),
                        tuple(Outcome.FAILED, OUTCOMES + "failsAgain(java.lang.String, int)#2~2"));
    }

    @ParameterizedTest
    @MethodSource("versions")
    void fixtures_are_steps_where_they_belong(String version) throws Exception {
        Launched launched = Versions.once(version, FixturesSample.class);

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.run().counts().all()).isEqualTo(3);
        assertThat(launched.run().containers())
                .extracting(ContainerResult::name)
                .containsExactly("Command line suite", "Command line test", "FixturesSample");
        assertThat(Outline.of(launched.container("Command line suite").entries()))
                .containsExactly(
                        "set-up: opensTheGarden passed",
                        "  - opens the garden",
                        "tear-down: closesTheGarden passed",
                        "  - closes the garden");
        assertThat(Outline.of(launched.container("Command line test").entries()))
                .containsExactly(
                        "set-up: unlocksTheGate passed",
                        "  - unlocks the gate",
                        "set-up: gathersTheGroup passed",
                        "  - gathers the group",
                        "tear-down: sendsTheGroupHome passed",
                        "  - sends the group home",
                        "tear-down: locksTheGate passed",
                        "  - locks the gate");
        assertThat(Outline.of(launched.container("FixturesSample").entries()))
                .containsExactly(
                        "set-up: fetchesTools passed",
                        "  - fetches tools",
                        "tear-down: bringsToolsBack passed",
                        "  - brings tools back");
        TestResult kale = launched.test("plants [2] Kale");
        assertThat(kale.key()).isEqualTo("sample.FixturesSample.plants(java.lang.String)#2");
        assertThat(kale.path()).containsExactly("Command line suite", "Command line test", "FixturesSample");
        assertThat(Outline.of(kale.entries()))
                .containsExactly(
                        "set-up: opens a browser passed",
                        "  - opens a browser for plants",
                        "crop=Kale",
                        "- plants Kale",
                        "tear-down: closes the browser passed",
                        "  - closes the browser");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void evidence_is_captured_before_the_tear_down(String version) throws Exception {
        Launched launched = Versions.once(version, FixturesSample.class);

        assertThat(Outline.of(launched.test("loses").entries()))
                .containsExactly(
                        "set-up: opens a browser passed",
                        "  - opens a browser for loses",
                        "Look failed",
                        "  [page]",
                        "tear-down: closes the browser passed",
                        "  - closes the browser");
        try (var files = Files.walk(launched.run().folder())) {
            Path page = files.filter(file -> file.toString().endsWith("page.txt"))
                    .findFirst()
                    .orElseThrow();
            assertThat(page).hasContent("the page");
        }
    }

    @ParameterizedTest
    @MethodSource("versions")
    void a_broken_fixture_breaks_its_class_and_what_it_skips_names_it(String version) throws Exception {
        Launched launched = Versions.jvm(
                root,
                version,
                BrokenSample.InSetUp.class.getName(),
                BrokenSample.InClass.class.getName(),
                BrokenSample.InTearDown.class.getName());

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(launched.run().brokenContainers())
                .extracting(
                        ContainerResult::name, container -> container.failure().message())
                .containsExactlyInAnyOrder(
                        tuple("BrokenSample.InSetUp", "no key"),
                        tuple("BrokenSample.InClass", "no tools"),
                        tuple("BrokenSample.InTearDown", "no brush"));
        assertThat(launched.run().tests())
                .extracting(TestResult::name, TestResult::outcome, TestResult::reason)
                .containsExactlyInAnyOrder(
                        tuple("plants", Outcome.SKIPPED, "The fixture 'opensTheGate' of BrokenSample.InSetUp failed"),
                        tuple("waters", Outcome.SKIPPED, "The fixture 'opensTheGate' of BrokenSample.InSetUp failed"),
                        tuple("digs", Outcome.SKIPPED, "The fixture 'fetchesTools' of BrokenSample.InClass failed"),
                        tuple("cuts", Outcome.PASSED, null),
                        tuple("rakes", Outcome.SKIPPED, "The fixture 'cleans' of BrokenSample.InTearDown failed"));
        assertThat(launched.test("digs").end().blockedBy()).containsExactly("sample.BrokenSample$InClass");
        assertThat(Outline.of(launched.test("plants").entries()))
                .contains("set-up: opensTheGate errored", "  - tries the key", "  - shuts the gate");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void objects_that_a_factory_makes_at_once_are_tests_of_their_own(String version) throws Exception {
        String drains = "sample.FactorySample$AtOnce[%s].drains()";
        Launched three = Versions.jvm(root, version, FactorySample.MakesAtOnce.class.getName());

        assertThat(three.run().problems()).isEmpty();
        assertThat(three.recordedCounts()).isEqualTo(three.counts()).hasToString("[2, 1, 0]");
        assertThat(three.run().tests())
                .extracting(TestResult::key, TestResult::outcome, TestResult::superseded)
                .containsExactlyInAnyOrder(
                        tuple(String.format(drains, "1"), Outcome.PASSED, false),
                        tuple(String.format(drains, "2"), Outcome.FAILED, false),
                        tuple(String.format(drains, "3"), Outcome.PASSED, false));
        assertThat(three.run().flaky()).isEmpty();

        Launched pairs = Versions.jvm(root.resolve("pairs"), version, FactorySample.MakesPairs.class.getName());
        assertThat(pairs.recordedCounts()).isEqualTo(pairs.counts()).hasToString("[2, 2, 0]");
        assertThat(pairs.run().tests()).extracting(TestResult::key).doesNotHaveDuplicates();
    }

    /** TestNG tells of each of them, and not which one it is. */
    @ParameterizedTest
    @MethodSource("versions")
    void rows_that_a_broken_fixture_keeps_from_running_are_tests_of_their_own(String version) throws Exception {
        Launched launched = Versions.once(version, BrokenSample.Twice.class, BrokenSample.BeforeRows.class);

        assertThat(launched.run().tests())
                .filteredOn(test -> test.key().contains("BeforeRows"))
                .allMatch(test -> test.outcome().equals(Outcome.SKIPPED))
                .extracting(TestResult::key)
                .hasSize(2)
                .doesNotHaveDuplicates()
                .contains("sample.BrokenSample$BeforeRows.sows(java.lang.String)#2");
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
    }

    @ParameterizedTest
    @MethodSource("versions")
    void each_fixture_that_fails_is_told(String version) throws Exception {
        Launched launched = Versions.once(version, BrokenSample.Twice.class, BrokenSample.BeforeRows.class);

        Failure failure = launched.container("BrokenSample.Twice").failure();
        assertThat(failure.message()).isEqualTo("no tools");
        assertThat(failure.gathered()).extracting(Failure::message).containsExactly("the shed is locked");
        assertThat(launched.test("digs").reason()).contains("'fetchesTools'");
    }

    @ParameterizedTest
    @MethodSource("versions")
    void each_soft_assertion_that_fails_is_a_check(String version) throws Exception {
        TestResult soft = Versions.once(version, OutcomesSample.class).test("assertsSoftly");

        assertThat(soft.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(Outline.of(soft.entries())).containsExactly("check the bed failed", "check the crop failed");
    }

    @ParameterizedTest
    @ValueSource(strings = {"none", "methods", "classes", "instances", "tests"})
    void what_runs_in_parallel_stays_with_its_test(String mode) throws Exception {
        Launched launched = Versions.jvm(
                root,
                "",
                "parallel=" + mode,
                FactorySample.class.getName(),
                FixturesSample.class.getName(),
                OutcomesSample.class.getName());

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        Set<String> keys = launched.run().tests().stream().map(TestResult::key).collect(Collectors.toSet());
        for (int bed = 1; bed <= 3; bed++)
            for (String work : List.of("waters", "weeds"))
                assertThat(keys).contains("sample.FactorySample[" + bed + "]." + work + "()");
        for (String bed : List.of("north", "south", "east")) {
            TestResult test = launched.test("weeds (" + bed + ")");
            assertThat(Outline.of(test.entries()))
                    .allMatch(line -> line.contains(bed) || line.contains("rests"))
                    .hasSize(42);
        }
        assertThat(launched.run().tests()).noneMatch(test -> test.outcome().equals(Outcome.UNFINISHED));
        assertThat(Outline.of(launched.run().entries())).isEmpty();
    }

    @Test
    void an_object_may_name_its_tests() throws Exception {
        Launched launched = Versions.jvm(root, "", FactorySample.Named.class.getName());

        assertThat(launched.test("the herb bed").key()).isEqualTo("sample.FactorySample$Named.smells()");
    }

    @Test
    void what_a_test_runs_with_testng_itself_is_its_own_affair() throws Exception {
        Launched launched = Versions.once("", InnerSample.class);

        assertThat(launched.run().tests()).extracting(TestResult::name).containsExactly("runsTestNG");
        assertThat(Outline.of(launched.test("runsTestNG").entries())).containsExactly("- inner status 1");
    }

    @Test
    void suites_and_their_tests_are_part_of_the_identity() throws Exception {
        Path xml = Files.writeString(root.resolve("garden.xml"), """
                <suite name="Orto">
                  <suite-files/>
                  <test name="North"><classes><class name="sample.FixturesSample"/></classes></test>
                  <test name="South"><classes><class name="sample.FixturesSample"/></classes></test>
                </suite>
                """.replace("  <suite-files/>\n", ""));

        Launched launched = Versions.jvm(root.resolve("runs"), "", xml.toString());

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.run().counts().all()).isEqualTo(6);
        assertThat(launched.run().tests())
                .extracting(TestResult::key)
                .contains("Orto/North/sample.FixturesSample.loses()", "Orto/South/sample.FixturesSample.loses()");
        assertThat(launched.test("loses").path()).containsExactly("Orto", "North", "FixturesSample");
    }

    @Test
    void a_listener_that_is_named_too_hears_once() throws Exception {
        Launched launched =
                Versions.jvm(root, "", "+" + VerbaleListener.class.getName(), FixturesSample.class.getName());

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.run().counts().all()).isEqualTo(3);
        assertThat(Outline.of(launched.test("loses").entries())).hasSize(6);
    }

    @Test
    void by_way_of_the_junit_platform_it_is_the_same_record_once() throws Exception {
        Launched direct = Versions.once("", OutcomesSample.class);
        Launched platform =
                Launched.jvm(root.resolve("platform"), PlatformLaunch.class, OutcomesSample.class.getName());

        assertThat(platform.run().problems()).isEmpty();
        // its engine has a test without data fail, which TestNG alone skips
        assertThat(platform.test("hasNoData").outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(platform.run().tests())
                .filteredOn(test -> !test.name().equals("hasNoData"))
                .extracting(TestResult::id, TestResult::outcome, TestResult::path)
                .containsExactlyInAnyOrderElementsOf(direct.run().tests().stream()
                        .filter(test -> !test.name().equals("hasNoData"))
                        .map(test -> tuple(test.id(), test.outcome(), test.path()))
                        .toList());
        assertThat(platform.run().containers())
                .extracting(ContainerResult::key)
                .containsExactlyElementsOf(direct.run().containers().stream()
                        .map(ContainerResult::key)
                        .toList());
    }

    /** As {@code verbale rerun --for testng} prints it. */
    @Test
    void what_failed_is_run_again_by_testngs_own_command_line_and_nothing_else() throws Exception {
        Launched first = Launched.jvm(
                root.resolve("first"), Launch.class, FixturesSample.class.getName(), OutcomesSample.class.getName());
        List<TestResult> wanted = List.of(first.test("fails"), first.test("breaks"));

        String selected = String.join(",", TestSelection.of(wanted).forTestNG());
        Launched again = Launched.jvm(
                root.resolve("again"),
                Launch.class,
                "-methods",
                selected,
                "-d",
                root.resolve("output").toString());

        assertThat(again.run().tests())
                .extracting(TestResult::key)
                .containsExactlyInAnyOrder(wanted.get(0).key(), wanted.get(1).key());
    }
}
