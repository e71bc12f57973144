package dev.verbale.junit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.Failure;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sample.ArchUnitSample;
import sample.BrokenSample;
import sample.DirectorySample;
import sample.DisabledSample;
import sample.ExitSample;
import sample.ExpectedFailureSample;
import sample.FixturesSample;
import sample.InnerLaunchSample;
import sample.JqwikSample;
import sample.OutcomesSample;
import sample.ParallelSample;
import sample.SkippedTemplatesSample;

/** What the platform runs is in the journal: with the dependency alone, and more with the extension. */
class ListenerTest {

    @TempDir
    Path root;

    @Test
    void every_kind_of_test_ends_as_the_platform_says() throws Exception {
        Launched launched = Launched.once(OutcomesSample.class);

        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(launched.run().problems()).isEmpty();

        TestResult passed = launched.test("a bean grows");
        assertThat(passed.key()).isEqualTo("sample.OutcomesSample.passes()");
        assertThat(passed.path()).containsExactly("The garden");
        assertThat(passed.tags()).containsExactly("bean", "garden");
        assertThat(passed.className()).isEqualTo("sample.OutcomesSample");
        assertThat(passed.thread()).isEqualTo("main");

        assertThat(launched.test("waits").outcome()).isEqualTo(Outcome.SKIPPED);
        assertThat(launched.test("waits").reason()).isEqualTo("next season");
        assertThat(launched.test("givesUp").outcome()).isEqualTo(Outcome.ABORTED);
        assertThat(launched.test("givesUp").reason()).isEqualTo("Assumption failed: needs rain");
        assertThat(outline(launched.test("givesUpInAStep"))).containsExactly("Look at the sky aborted");
        assertThat(launched.test("sleeps").path()).containsExactly("The garden", "in winter");
        assertThat(launched.test("sleeps").key()).isEqualTo("sample.OutcomesSample$Winter.sleeps()");
        assertThat(launched.test("again repetition 2 of 2").key()).isEqualTo("sample.OutcomesSample.again()#2");
        assertThat(launched.test("seeds Kale").outcome()).isEqualTo(Outcome.FAILED);
    }

    @Test
    void failures_bring_what_the_open_types_tell() throws Exception {
        Launched launched = Launched.once(OutcomesSample.class);

        for (String name : List.of("differs", "differsInAssertJ")) {
            Failure failure = failure(launched.test(name));
            assertThat(launched.test(name).outcome()).isEqualTo(Outcome.FAILED);
            assertThat(failure.expected()).isIn("Ada waters", "\"Dario\"");
            assertThat(failure.actual()).isIn("Dario waters", "\"Ada\"");
            assertThat(failure.stack()).contains("OutcomesSample.java");
        }
        assertThat(failure(launched.test("differsTwice")).gathered())
                .extracting(Failure::expected)
                .containsExactly("1", "a");
        TestResult broken = launched.test("breaks");
        assertThat(broken.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(failure(broken).type()).isEqualTo("java.io.IOException");
        assertThat(failure(broken).stack()).contains("Caused by: java.lang.IllegalStateException: the shed is locked");
    }

    @Test
    @Tag("since-5.12")
    void parameters_and_what_a_reporter_publishes_belong_to_the_test() throws Exception {
        Launched launched = Launched.once(OutcomesSample.class);

        // by its key: JUnit 6 puts the values in its name into quotes
        TestResult basil = launched.run().tests().stream()
                .filter(test -> test.key().equals("sample.OutcomesSample.grows(java.lang.String, int)#2"))
                .findFirst()
                .orElseThrow();
        assertThat(basil.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(outline(basil)).containsExactly("crop=Basil", "plot=2");
        assertThat(outline(launched.test("reports")))
                .containsExactly("Report passed", "  plot=12", "  a line", "harvest.csv");
        assertThat(launched.run().folder().resolve("tests/OutcomesSample/reports/01-harvest.csv"))
                .hasContent("plot,kilos\n");
    }

    @Test
    void fixtures_are_steps_and_evidence_is_taken_before_teardown() throws Exception {
        Launched launched = Launched.jvm(root, FixturesSample.class);

        assertThat(outline(launched.test("passes")))
                .containsExactly("set-up open the gate passed", "tear-down shut the gate passed");
        assertThat(outline(launched.test("fails")))
                .containsExactly("set-up open the gate passed", "the gate is open", "tear-down shut the gate passed");
        assertThat(outline(launched.test("neverStarts")))
                .containsExactly(
                        "set-up open the gate errored", "  the gate is open", "tear-down shut the gate passed");
        assertThat(outline(launched.test("runsOnAnotherThread")))
                .containsExactly(
                        "set-up open the gate passed",
                        "Elsewhere passed",
                        "  on time",
                        "tear-down shut the gate passed");
        ContainerResult around = launched.run().containers().get(0);
        assertThat(around.entries())
                .extracting(entry -> ((Entry.StepEntry) entry).name())
                .containsExactly("unlock the garden", "lock the garden");
    }

    @Test
    void annotations_tell_what_tests_are_about_and_what_is_expected_of_them() throws Exception {
        Launched launched = Launched.once(ExpectedFailureSample.class);

        TestResult described = launched.run().tests().stream()
                .filter(test -> test.key().equals("sample.ExpectedFailureSample.described()"))
                .findFirst()
                .orElseThrow();
        assertThat(described.about().text()).isEqualTo("The gate");
        assertThat(described.about().owner()).isEqualTo("Ada");
        assertThat(described.about().severity()).isEqualTo("grave");
        assertThat(described.about().links())
                .extracting(About.Link::name)
                .containsExactly("https://orto.example/gate", "GARDEN-1");
        TestResult inner = launched.run().tests().stream()
                .filter(test -> test.key().contains("$Inner"))
                .findFirst()
                .orElseThrow();
        assertThat(inner.about().text()).isEqualTo("The inner gate");
        assertThat(inner.about().owner()).isEqualTo("Ada");

        TestResult expected = launched.test("failsAsExpected");
        assertThat(expected.outcome()).isEqualTo(Outcome.EXPECTED_FAILURE);
        assertThat(expected.reason()).isEqualTo("the hinge is rusty");
        assertThat(failure(expected).message()).isEqualTo("it squeaks");
        assertThat(expected.entries()).as("no evidence is taken").isEmpty();
        assertThat(launched.test("passesAllTheSame").reason()).contains("was rusty once", "the annotation can go");
        assertThat(launched.counts()).as("green but for the checks").startsWith(6, 5, 1);
    }

    @Test
    void checks_go_on_and_fail_the_test_together_and_a_timeout_thread_is_the_tests_own() throws Exception {
        Launched launched = Launched.once(ExpectedFailureSample.class);

        TestResult checked = launched.test("checksGoOn");
        assertThat(checked.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(failure(checked).message()).startsWith("2 checks failed:\n  hinge: expected: <oiled>");
        assertThat(failure(checked).gathered()).extracting(Failure::expected).containsExactly("oiled", null);
        assertThat(outline(checked)).contains("went on");
        assertThat(outline(launched.test("keepsItsStepsInATimeout"))).containsExactly("Wait passed", "  inside");
    }

    @Test
    void without_the_extension_the_structure_is_there_all_the_same() throws Exception {
        Launched launched = Launched.jvm(root, List.of(), FixturesSample.class.getName());

        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(outline(launched.test("fails"))).containsExactly("the gate is shut");
    }

    @Test
    void a_class_that_breaks_or_is_skipped_hides_no_test() throws Exception {
        Launched launched = Launched.jvm(root, BrokenSample.class, DisabledSample.class);

        assertThat(launched.run().tests())
                .extracting(TestResult::outcome, TestResult::reason)
                .containsOnly(tuple(Outcome.SKIPPED, "the pond is frozen"));
        assertThat(launched.run().tests()).hasSize(2);
        assertThat(launched.run().brokenContainers()).singleElement().satisfies(broken -> {
            assertThat(broken.name()).isEqualTo("BrokenSample");
            assertThat(broken.notRun()).isEqualTo(2);
            assertThat(broken.failure()).isNotNull();
        });
    }

    @Test
    void methods_whose_tests_are_not_known_yet_are_not_forgotten() throws Exception {
        Launched launched = Launched.jvm(
                root,
                SkippedTemplatesSample.Skipped.class,
                SkippedTemplatesSample.Broken.class,
                SkippedTemplatesSample.BrokenAfterwards.class);

        assertThat(launched.run().tests().stream().filter(test -> test.outcome() == Outcome.SKIPPED))
                .extracting(TestResult::methodName, TestResult::reason)
                .containsExactlyInAnyOrder(
                        tuple("rows", "the pond is frozen"),
                        tuple("made", "the pond is frozen"),
                        tuple("plain", "the pond is frozen"));
        assertThat(launched.run().brokenContainers())
                .extracting(ContainerResult::name, ContainerResult::notRun)
                .containsExactlyInAnyOrder(
                        tuple("SkippedTemplatesSample$Broken", 2), tuple("SkippedTemplatesSample$BrokenAfterwards", 0));
        assertThat(launched.run().counts().of(Outcome.PASSED)).isEqualTo(4);
    }

    @Test
    void what_a_test_launches_itself_is_its_own_affair() throws Exception {
        Launched launched = Launched.jvm(root, InnerLaunchSample.class);

        assertThat(launched.run().tests())
                .extracting(TestResult::name)
                .containsExactlyInAnyOrder("watchesASubjectFail", "runsAfterIt");
        TestResult watching = launched.test("watchesASubjectFail");
        assertThat(failure(watching).message()).contains("gathered before");
        assertThat(outline(watching)).contains("from the subject");
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(launched.output().lines().filter(line -> line.startsWith("Verbale:")))
                .hasSize(1);

        Launched asked = Launched.jvm(
                root.resolve("asked"),
                List.of("-Dverbale.junit.inner-launches=true"),
                "junit.jupiter.extensions.autodetection.enabled=true",
                InnerLaunchSample.class.getName());
        assertThat(asked.run().tests()).extracting(TestResult::name).contains("failsAsItShould");
    }

    @Test
    @Tag("once")
    void the_end_of_memory_is_told_although_the_platform_tells_nobody() throws Exception {
        List<String> command = List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Dverbale.root=" + root,
                "-cp",
                System.getProperty("java.class.path"),
                Launch.class.getName(),
                "junit.jupiter.extensions.autodetection.enabled=true",
                "sample.OutOfMemorySample");
        Process jvm = new ProcessBuilder(command).redirectErrorStream(true).start();
        jvm.getInputStream().readAllBytes();
        jvm.waitFor();

        Run run = RunReader.read(root);

        assertThat(run.tests()).singleElement().satisfies(test -> {
            assertThat(test.outcome()).isEqualTo(Outcome.ERRORED);
            assertThat(failure(test).type()).isEqualTo("java.lang.OutOfMemoryError");
        });
        assertThat(run.brokenContainers()).extracting(ContainerResult::name).containsExactly("OutOfMemorySample");
    }

    @Test
    @Tag("since-5.12")
    void a_published_folder_is_kept_with_all_its_files() throws Exception {
        Launched launched = Launched.jvm(root, DirectorySample.class);

        assertThat(launched.test("publishes").entries())
                .extracting(entry -> ((Entry.AttachmentEntry) entry).name())
                .containsExactly("harvest/beans.csv", "harvest/july/kale.csv");
        assertThat(launched.run().problems()).isEmpty();
    }

    @Test
    void eight_tests_at_once_never_get_each_others_lines() throws Exception {
        Launched launched = Launched.jvm(
                root,
                List.of(),
                "junit.jupiter.execution.parallel.enabled=true",
                "junit.jupiter.execution.parallel.config.strategy=fixed",
                "junit.jupiter.execution.parallel.config.fixed.parallelism=8",
                ParallelSample.class.getName());

        Set<String> threads =
                launched.run().tests().stream().map(TestResult::thread).collect(Collectors.toSet());
        assertThat(threads).hasSizeGreaterThanOrEqualTo(8);
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts()).startsWith(80, 72, 8);
        assertThat(launched.run().tests()).allSatisfy(test -> {
            String number = test.name().replaceAll("\\D*(\\d+) of 80", "$1");
            assertThat(outline(test))
                    .hasSize(11)
                    .allMatch(line -> line.strip().matches("mine is " + number + "( passed)?"));
        });
    }

    /** All that is recorded passed, and the exit code is 0: what did not run is not there to be red. */
    @Test
    @Tag("once")
    void a_run_whose_jvm_is_ended_while_it_goes_on_is_incomplete() throws Exception {
        Launched launched = Launched.jvm(root, ExitSample.class);

        assertThat(launched.test("passes").outcome()).isEqualTo(Outcome.PASSED);
        assertThat(launched.run().incomplete().notClosed()).hasSize(1);
        assertThat(launched.run().problems())
                .extracting(Problem::what)
                .anyMatch(what -> what.contains("the JVM was ended while tests ran, as by System.exit"));
    }

    @Test
    @Tag("once")
    void one_quiet_line_ends_the_run_and_can_be_turned_off() throws Exception {
        Launched loud = Launched.jvm(root, DisabledSample.class);
        Launched quiet = Launched.jvm(root, List.of("-Dverbale.summary-line=false"), DisabledSample.class.getName());

        assertThat(loud.output().lines().filter(line -> line.startsWith("Verbale")))
                .containsExactly(
                        "Verbale: 2 tests: 2 skipped. Recorded in " + loud.run().folder());
        assertThat(quiet.output()).doesNotContain("Verbale");
    }

    @Test
    @Tag("once")
    void two_runs_one_after_the_other_never_mix_and_off_is_off() throws Exception {
        Launched first = Launched.jvm(root, DisabledSample.class);
        Launched second = Launched.jvm(root, DisabledSample.class);
        Path nothing = root.resolve("nothing");

        assertThat(first.run().name()).isLessThan(second.run().name());
        assertThat(second.run().counts().all()).isEqualTo(2);
        assertThat(second.run().workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.ended()).isTrue());

        Launched.jvm(root, List.of("-Dverbale.enabled=false", "-Dverbale.root=" + nothing), "sample.DisabledSample");
        assertThat(Files.exists(nothing)).isFalse();
    }

    @Test
    @Tag("once")
    void jvms_that_are_told_the_same_run_gather_in_it() throws Exception {
        Launched.jvm(root, List.of("-Dverbale.run=nightly-7"), DisabledSample.class.getName());
        Launched both = Launched.jvm(root, List.of("-Dverbale.run=nightly-7"), OutcomesSample.class.getName());

        assertThat(both.run().name()).isEqualTo("nightly-7");
        assertThat(both.run().workers()).hasSize(2);
        assertThat(both.run().counts().all()).isEqualTo(2 + both.counts().get(0));
    }

    /** Somebody else's tests: thousands of them, with parameterized and repeated ones among them. */
    @Test
    @Tag("once")
    void other_engines_are_recorded_by_their_own_structure() throws Exception {
        Launched launched = Launched.jvm(
                root, List.of(), JqwikSample.class.getName(), ArchUnitSample.class.getName(), Launch.SPOCK);

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(launched.run().tests())
                .extracting(
                        TestResult::key,
                        TestResult::name,
                        test -> test.outcome().word())
                .containsExactlyInAnyOrder(
                        tuple(
                                "sample.JqwikSample.sumsAreTheSameBothWays(int, int)",
                                "sumsAreTheSameBothWays",
                                "passed"),
                        tuple("sample.JqwikSample.grows()", "a bean grows", "passed"),
                        tuple("sample.JqwikSample$Winter.nothingGrows()", "nothingGrows", "failed"),
                        tuple("sample.ArchUnitSample.SAMPLES_ARE_SAMPLES", "SAMPLES_ARE_SAMPLES", "passed"),
                        tuple("sample.ArchUnitSample.nothingIsPrivate", "nothingIsPrivate", "failed"),
                        tuple("sample.GardenSpec.a bean grows", "a bean grows", "passed"),
                        tuple("sample.GardenSpec.a bed has #crop", "a bed has #crop", "passed"),
                        tuple("sample.GardenSpec.a bed has #crop#1", "a bed has Kale", "passed"),
                        tuple("sample.GardenSpec.a bed has #crop#2", "a bed has Basil", "failed"));
    }

    @Test
    @Tag("once")
    @ByNight
    void a_published_suite_of_thousands_is_counted_as_the_platform_counts_it() throws Exception {
        boolean isNight = Boolean.getBoolean("verbale.night");
        List<String> byDay = List.of(
                "org.apache.commons.lang3.mutable",
                "org.apache.commons.lang3.tuple",
                "org.apache.commons.lang3.LocaleUtilsTest");
        List<String> all = new java.util.ArrayList<>(byDay);
        if (isNight)
            all.addAll(List.of(
                    "org.apache.commons.lang3.math",
                    "org.apache.commons.lang3.reflect",
                    "org.apache.commons.lang3.function",
                    "org.apache.commons.lang3.StringUtilsTest",
                    "org.apache.commons.lang3.ArrayUtilsTest"));
        Launched launched = Launched.jvm(root, List.of(), all.toArray(String[]::new));

        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
        assertThat(launched.run().counts().all()).isGreaterThan(isNight ? 4_000 : 150);
        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.output()).doesNotContain("WARNING: Verbale");
    }

    private static Failure failure(TestResult test) {
        Failure failure = test.failure();
        assertThat(failure).as("failure of " + test.name()).isNotNull();
        return failure;
    }

    private static List<String> outline(TestResult test) {
        List<String> lines = new ArrayList<>();
        outline(test.entries(), "", lines);
        return lines;
    }

    private static void outline(List<Entry> entries, String indent, List<String> lines) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.StepEntry step) {
                String kind = step.kind().word().replace("action", "");
                lines.add(indent
                        + (kind + " " + step.name() + " " + step.outcome().word()).strip());
                outline(step.entries(), indent + "  ", lines);
            } else if (entry instanceof Entry.LogEntry log) lines.add(indent + log.text());
            else if (entry instanceof Entry.DataEntry data) lines.add(indent + data.name() + "=" + data.value());
            else if (entry instanceof Entry.AttachmentEntry attachment) lines.add(indent + attachment.name());
        }
    }
}
