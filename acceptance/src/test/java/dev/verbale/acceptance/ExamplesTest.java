package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByDay;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The small projects beside the demo: each is run by the command that the README gives, outside of this project. */
class ExamplesTest {

    /** Frameworks that give the same idea the same name. */
    private static final List<String> SAME_IDEA = List.of("first-steps-junit", "first-steps-testng");

    @TempDir
    Path folder;

    static Stream<String> a_suite_ends_with_its_page() {
        return ByDay.everyFourth(
                List.of("first-steps-junit", "first-steps-testng", "first-steps-cucumber", "api-only"));
    }

    @ParameterizedTest
    @MethodSource
    void a_suite_ends_with_its_page(String name) throws Exception {
        Jvm maven = run(name, "mvn test");

        assertThat(maven.output()).as("one test fails on purpose").contains("Page: file://", "BUILD FAILURE");
        Run run = RunReader.read(folder.resolve(name + "/target/verbale"));
        assertThat(run.problems()).isEmpty();
        assertThat(run.counts().of(Outcome.FAILED)).isEqualTo(1);
        assertThat(run.folder().resolve("page/index.html")).exists();
        assertThat(run.tests()).allSatisfy(test -> assertThat(test.entries()).isNotNull());
        if (SAME_IDEA.contains(name))
            assertThat(run.tests())
                    .extracting(TestResult::key)
                    .contains(
                            "orto.GateTest.opens(java.lang.String, int)#1",
                            "orto.GateTest.opens(java.lang.String, int)#2");
    }

    /** The first day's last step, as it stands in the document: summary, XML, gate, with the command line by its coordinates. */
    @Test
    @ByNight // by day RecipesTest runs jobs like it, without Maven
    void a_job_runs_its_tests_writes_its_summary_and_is_closed_by_its_gate() throws Exception {
        Path copy = folder.resolve("api-only");
        Checkout.copy(Checkout.ROOT.resolve("examples/api-only"), copy);
        Path script = copy.resolve("ci.sh");
        String offline = "mvn -o -Dmaven.repo.local=" + System.getProperty("maven.repository") + " ";
        Files.writeString(script, Files.readString(script).replace("\nmvn ", "\n" + offline));
        Path summary = copy.resolve("summary.md");

        Jvm job = Jvm.run(
                Map.of("SUMMARY", summary.toString(), "MAVEN_OPTS", String.join(" ", Jvm.SHORT)),
                copy,
                List.of("bash", script.toString()));

        assertThat(job.code()).as(job.output()).isEqualTo(5);
        assertThat(job.output())
                .contains("BUILD SUCCESS", "1 of 4 tests did not pass", "GET /hours/autumn answered 404, expected 200")
                .contains("Page: file://", "The gate is closed");
        assertThat(summary).content().contains("*product, owner the gate's team*", "There is no such season");
        assertThat(copy.resolve("target/TEST-all.xml")).exists();
        assertThat(copy.resolve(".verbale/history")).isDirectory();
        Run run = RunReader.read(copy.resolve("target/verbale"));
        assertThat(Files.readString(run.folder().resolve("journals/worker-1.jsonl")))
                .doesNotContain("seeds-4711");
    }

    @Test
    void a_runner_of_ones_own_is_recorded_and_read_in_ten_lines() throws Exception {
        Jvm runner = run("own-runner", "mvn -q compile exec:exec");
        Jvm reading = run("reading-results", "mvn -q compile exec:exec -Druns=../own-runner/target/verbale");

        assertThat(runner.output()).contains("Verbale: 3 tests: 1 passed, 1 failed, 1 errored.", "Page: file://");
        assertThat(reading.output())
                .contains(": 3 tests", "failed garden.csv/Weed a bed after", "errored garden.csv/Rest after");
    }

    /** With a network: what generates it is no part of Verbale's own build. */
    @Test
    @ByNight
    void a_client_that_is_generated_from_what_a_hub_says_of_itself_works() throws Exception {
        Path copy = folder.resolve("hub-client");
        Checkout.copy(Checkout.ROOT.resolve("examples/hub-client"), copy);
        try (var hub = new HubProcess(Checkout.ROOT.resolve("cli/target/verbale.jar"), folder.resolve("hub"))) {
            Path described = Files.writeString(folder.resolve("openapi.yaml"), hub.ask("GET", "api/v1/openapi.yaml"));

            Jvm maven = Jvm.run(
                    hub.environment(hub.first), copy, List.of("mvn", "-B", "-q", "test", "-Dhub.openapi=" + described));

            assertThat(maven.code()).as(maven.output()).isZero();
        }
    }

    @Test
    void all_of_them_are_in_the_readme_and_of_this_version() throws Exception {
        String readme = Files.readString(Checkout.ROOT.resolve("README.md"));
        try (Stream<Path> all = Files.list(Checkout.ROOT.resolve("examples"))) {
            for (Path example : all.filter(Files::isDirectory).toList()) {
                String name = example.getFileName().toString();
                assertThat(readme).contains("examples/" + name);
                String pom = Files.readString(example.resolve("pom.xml"));
                if (pom.contains("<verbale.version>"))
                    assertThat(pom).contains("<verbale.version>" + System.getProperty("tested.version") + "<");
            }
        }
    }

    /** {@code command} as the README has it, without a network. */
    private Jvm run(String name, String command) throws Exception {
        assertThat(Files.readString(Checkout.ROOT.resolve("README.md")))
                .containsPattern(Pattern.quote("(cd examples/" + name + " && " + command + ")"));
        Path copy = folder.resolve(name);
        if (!Files.exists(copy)) Checkout.copy(Checkout.ROOT.resolve("examples").resolve(name), copy);
        assertThat(command).startsWith("mvn ");
        return SampleBuild.maven(copy, command.substring("mvn ".length()).split(" "));
    }
}
