package dev.verbale.cucumber;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.ContainerResult;
import dev.verbale.results.TestResult;
import dev.verbale.results.selection.TestSelection;
import dev.verbale.testing.Launched;
import dev.verbale.testing.Outline;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What Cucumber runs is in the journal, the same whatever runs Cucumber, and is counted as the runner counts it. */
class VerbalePluginTest {

    private static final String GARDEN = "features/garden.feature/";

    @TempDir
    Path root;

    /** What Cucumber's own command line leaves behind, with nothing else said. */
    private static Launched plainly() throws Exception {
        return Launched.once(Launched.classPath(), Launch.class, "command-line");
    }

    @Test
    void scenarios_steps_and_hooks_are_recorded_with_what_stands_below_them() throws Exception {
        Launched launched = plainly();

        assertThat(launched.run().problems()).isEmpty();
        TestResult swap = launched.test("Ada swaps a day");
        assertThat(swap.key()).isEqualTo(GARDEN + "Ada swaps a day");
        assertThat(swap.path()).containsExactly("The rota");
        assertThat(swap.tags()).containsExactly("garden", "smoke");
        assertThat(swap.identity().source()).isEqualTo("features/garden.feature:12");
        assertThat(Outline.of(swap.entries()))
                .containsExactly(
                        "set-up: opens a browser passed",
                        "Given a garden with these beds [[bed, crop], [north, Kale], [south, Basil]] passed",
                        "  - a garden with 2 beds",
                        "tear-down: looks around passed",
                        "When Ada swaps Monday with Dario passed",
                        "  Press Swap passed",
                        "    - Ada swaps Monday",
                        "  - swapped with Dario",
                        "  [the rota]",
                        "tear-down: looks around passed",
                        "Then Dario waters on Monday passed",
                        "tear-down: looks around passed",
                        "tear-down: closes the browser passed");
        assertThat(Outline.of(launched.test("The beds rest").entries()))
                .contains("Given a letter 'Dear neighbours,\nnobody waters in winter.' passed");
        assertThat(launched.test("The beds rest").path()).containsExactly("The rota", "In winter");
        assertThat(launched.run().containers())
                .extracting(ContainerResult::name)
                .containsExactly("The rota", "In winter", "The shed");
    }

    @Test
    void a_failing_step_has_the_evidence_of_its_moment() throws Exception {
        Launched launched = plainly();

        TestResult dry = launched.attempts("Nobody waters").get(0);
        assertThat(dry.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(Outline.of(dry.entries()).subList(3, 8))
                .containsExactly(
                        "When nobody waters failed",
                        "  Look at the beds failed",
                        "    [page]",
                        "Then the Kale is green skipped",
                        "tear-down: closes the browser passed");
        try (var files = Files.walk(launched.run().folder().resolve("tests/garden"))) {
            assertThat(files.filter(file -> file.toString().endsWith("page.txt")))
                    .isNotEmpty()
                    .allSatisfy(page -> assertThat(page).hasContent("the page"));
        }
    }

    @Test
    void equal_names_and_rows_are_different_tests() throws Exception {
        Launched launched = plainly();

        assertThat(launched.attempts("Nobody waters"))
                .extracting(TestResult::key)
                .containsExactly(GARDEN + "Nobody waters", GARDEN + "Nobody waters (2)");
        assertThat(launched.test("Watering Basil").key()).isEqualTo(GARDEN + "Watering <crop>#2");
        assertThat(Outline.of(launched.test("Watering Basil").entries())).contains("who=Dario", "crop=Basil");
        assertThat(Outline.of(launched.test("Watering a | b").entries())).contains("who=Mai", "crop=a | b");
        assertThat(launched.test("Watering a | b").key()).isEqualTo(GARDEN + "Watering <crop>#3");
        assertThat(launched.test("Every gate [2] south, [masked]").key()).isEqualTo(GARDEN + "Every gate#2");
        assertThat(Files.readString(launched.run().folder().resolve("journals/worker-1.jsonl")))
                .doesNotContain("s3cr3t");
    }

    @Test
    void undefined_pending_and_given_up_scenarios_say_why() throws Exception {
        Launched launched = plainly();

        TestResult undefined = launched.test("Nobody comes");
        assertThat(undefined.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(undefined.failure().message())
                .startsWith("No code belongs to the step 'the gate is forgotten'. It may look like this:")
                .contains("@When(\"the gate is forgotten\")");
        assertThat(launched.test("It snows").outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(launched.test("It snows").failure().message()).isEqualTo("no snow yet");
        assertThat(launched.test("It is too cold"))
                .extracting(TestResult::outcome, TestResult::reason)
                .containsExactly(Outcome.ABORTED, "nobody measures the cold");
        assertThat(Outline.of(launched.test("It is too cold").entries())).contains("When it freezes aborted");
    }

    @ParameterizedTest
    @ValueSource(strings = {"testng", "junit4", "vintage", "platform", "suite"})
    void each_runner_gives_the_same_record_once(String runner) throws Exception {
        Launched commandLine = plainly();

        Launched launched = Launched.jvm(root.resolve(runner), Launch.class, runner);

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.record()).isEqualTo(commandLine.record());
        assertThat(launched.recordedCounts()).isEqualTo(launched.counts());
    }

    @Test
    void what_runs_in_parallel_stays_with_its_scenario() throws Exception {
        Launched alone = plainly();

        Launched launched = Launched.jvm(root.resolve("many"), Launch.class, "command-line", "--threads", "8");

        assertThat(launched.run().problems()).isEmpty();
        assertThat(launched.record())
                .map(VerbalePluginTest::withoutThread)
                .isEqualTo(alone.record().stream()
                        .map(VerbalePluginTest::withoutThread)
                        .toList());
        assertThat(launched.run().tests()).extracting(TestResult::thread).doesNotContain("main");
    }

    private static String withoutThread(String line) {
        return line.replaceAll(" on (main|cucumber-runner-\\d+-thread-\\d+)", "");
    }

    /** As {@code verbale rerun --for cucumber} prints it. */
    @Test
    void what_failed_is_run_again_by_cucumbers_own_command_line_and_nothing_else() throws Exception {
        Launched first = plainly();
        Set<String> failed =
                first.run().needingAttention().stream().map(TestResult::key).collect(Collectors.toSet());

        List<String> selected = TestSelection.of(first.run().needingAttention()).forCucumber();
        List<String> arguments = new ArrayList<>(List.of("command-line"));
        arguments.addAll(selected);
        Launched again = Launched.jvm(root.resolve("again"), Launch.class, arguments.toArray(String[]::new));

        assertThat(failed).hasSizeBetween(1, first.run().counts().all() - 1);
        assertThat(again.run().tests()).extracting(TestResult::key).hasSameElementsAs(failed);
    }

    @Test
    void registered_twice_it_records_once() throws Exception {
        Launched once = plainly();

        Launched twice = Launched.jvm(
                root.resolve("twice"),
                Launched.classPath(),
                List.of("-Dcucumber.plugin=" + VerbalePlugin.class.getName()),
                Launch.class,
                "command-line");

        assertThat(twice.record()).isEqualTo(once.record());
    }

    @Test
    void what_is_inserted_above_and_where_features_lie_make_no_other_scenarios() throws Exception {
        Launched before = plainly();
        String feature;
        try (var in = VerbalePluginTest.class.getResourceAsStream("/features/garden.feature")) {
            feature = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        String longer = feature.replace(
                        "  @smoke", "  # a line\n\n  Scenario: A new one\n    When it rains\n\n  @smoke")
                .replace("      | Dario | Basil |", "      | Dario | Basil |\n      # and\n");
        Path file = root.resolve("project/src/test/resources/features/garden.feature");
        Files.createDirectories(file.getParent());
        Files.writeString(file, longer);

        Launched after = Launched.jvm(root.resolve("after"), Launch.class, "command-line", file.toString());

        assertThat(after.run().tests()).extracting(TestResult::key).contains(GARDEN + "A new one");
        assertThat(after.record())
                .filteredOn(line -> !line.contains("A new one"))
                .isEqualTo(before.record().stream()
                        .filter(line -> line.startsWith(GARDEN))
                        .toList());
    }

    @Test
    void plugins_that_a_file_names_run_beside_it() throws Exception {
        Path json = root.resolve("result.json");
        Files.writeString(root.resolve("junit-platform.properties"), "cucumber.plugin=json:" + json);
        List<String> classPath = new ArrayList<>(List.of(root.toString()));
        classPath.addAll(Launched.classPath());

        Launched launched = Launched.jvm(root.resolve("runs"), classPath, List.of(), Launch.class, "platform");

        assertThat(json).isNotEmptyFile();
        assertThat(launched.run().tests()).isNotEmpty();
    }
}
