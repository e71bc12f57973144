package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Real Maven builds of a project with two modules: all their JVMs gather in one run, and two builds never mix. */
class BuildsTest {

    /** The other plugin that forks; in the phase before packaging, which this is not about. */
    private static final String FAILSAFE = """
            <plugin>
              <artifactId>maven-failsafe-plugin</artifactId><version>%s</version>
              <executions><execution>
                <phase>test</phase><goals><goal>integration-test</goal><goal>verify</goal></goals>
              </execution></executions>
            </plugin>""".formatted(System.getProperty("surefire.version"));

    @TempDir
    Path project;

    @BeforeEach
    void write_the_project() throws Exception {
        write("pom.xml", SampleBuild.parent(""));
        write("beds/pom.xml", SampleBuild.module("beds", "<forkCount>4</forkCount><reuseForks>false</reuseForks>", ""));
        write(
                "shed/pom.xml",
                SampleBuild.module("shed", "<rerunFailingTestsCount>2</rerunFailingTestsCount>", FAILSAFE));
        for (int i = 1; i <= 2; i++)
            write("beds/src/test/java/Bed" + i + "Test.java", SampleBuild.testClass("Bed" + i + "Test", ""));
        write("shed/src/test/java/GateIT.java", SampleBuild.testClass("GateIT", ""));
        write(
                "shed/src/test/java/ShedTest.java",
                SampleBuild.testClass(
                        "ShedTest",
                        "static int tries; @Test void shaky() { if (tries++ == 0) throw new AssertionError(\"wind\"); }"));
    }

    @Test
    void forks_modules_and_retries_of_one_build_gather_in_one_run() throws Exception {
        Jvm maven = build();

        assertThat(maven.code()).as(maven.output()).isZero();
        List<RunFolder> runs = new ResultsRoot(project.resolve("target/verbale")).runs();
        assertThat(runs).as(maven.output()).hasSize(1);
        Run run = RunReader.read(runs.get(0).path());
        assertThat(run.workers())
                .as("a fork for each class of the beds, one for the shed, one for its gate")
                .hasSize(4);
        assertThat(run.workers())
                .allSatisfy(worker -> assertThat(worker.ended()).isTrue());
        assertThat(run.tests())
                .extracting(TestResult::id)
                .containsExactlyInAnyOrder(
                        "[beds] Bed1Test.grows()",
                        "[beds] Bed2Test.grows()",
                        "[shed] GateIT.grows()",
                        "[shed] ShedTest.grows()",
                        "[shed] ShedTest.shaky()",
                        "[shed] ShedTest.shaky()~2");
        assertThat(run.counts().of(Outcome.PASSED)).isEqualTo(5);
        assertThat(run.counts().all()).isEqualTo(5);
        assertThat(run.flaky()).extracting(TestResult::methodName).containsExactly("shaky");
        assertThat(run.facts()).containsEntry("started by", "Maven");
        assertThat(run.problems()).isEmpty();
    }

    @Test
    @ByNight
    void two_builds_at_once_have_a_run_each() throws Exception {
        List<CompletableFuture<Jvm>> builds = new ArrayList<>();
        for (int i = 0; i < 2; i++)
            builds.add(CompletableFuture.supplyAsync(() -> {
                try {
                    return build("-pl", "beds"); // Failsafe's files of one build would be gone when the other ends
                } catch (Exception failed) {
                    throw new IllegalStateException(failed);
                }
            }));
        for (CompletableFuture<Jvm> build : builds)
            assertThat(build.get().output()).contains("BUILD SUCCESS");

        List<RunFolder> runs = new ResultsRoot(project.resolve("target/verbale")).runs();
        assertThat(runs).hasSize(2);
        for (RunFolder run : runs)
            assertThat(RunReader.read(run.path()).tests()).hasSize(2);
    }

    @Test
    @ByNight
    void a_build_that_forks_nothing_has_one_run_too() throws Exception {
        write("beds/pom.xml", SampleBuild.module("beds", "<forkCount>0</forkCount>", ""));
        write(
                "shed/pom.xml",
                SampleBuild.module(
                        "shed", "<forkCount>0</forkCount><rerunFailingTestsCount>2</rerunFailingTestsCount>", ""));

        Jvm maven = build();

        assertThat(maven.code()).as(maven.output()).isZero();
        List<RunFolder> runs = new ResultsRoot(project.resolve("target/verbale")).runs();
        assertThat(runs).as(maven.output()).hasSize(1);
        Run run = RunReader.read(runs.get(0).path());
        assertThat(run.counts().all()).isEqualTo(4);
        assertThat(run.tests())
                .extracting(TestResult::key)
                .contains("[beds] Bed1Test.grows()", "[shed] ShedTest.shaky()");
        assertThat(run.problems()).isEmpty();
    }

    private Jvm build(String... more) throws Exception {
        List<String> arguments = new ArrayList<>(List.of(more));
        arguments.add("test");
        return sample().mavenOfItsOwn(arguments.toArray(String[]::new));
    }

    private SampleBuild sample() {
        return new SampleBuild(project);
    }

    private void write(String name, String content) throws Exception {
        sample().write(name, content);
    }
}
