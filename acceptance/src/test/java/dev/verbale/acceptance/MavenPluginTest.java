package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.HistoryFolder;
import dev.verbale.hostile.ByNight;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.testing.Jvm;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** With the plugin a build has one run and a page at its end, however it ends. */
class MavenPluginTest {

    private static final Pattern PAGE = Pattern.compile("\\[INFO] Page: file://(\\S+)");

    @TempDir
    Path project;

    @BeforeEach
    void write_the_project() throws Exception {
        sample().write("pom.xml", SampleBuild.parent(plugin("")));
        sample().write("beds/pom.xml", SampleBuild.module("beds", "<reuseForks>false</reuseForks>", ""));
        sample().write("shed/pom.xml", SampleBuild.module("shed", "", ""));
        sample().write(
                        "beds/src/test/java/BedTest.java",
                        SampleBuild.testClass(
                                "BedTest", "@Test void fails() { throw new AssertionError(\"snails\"); }"));
        sample().write("shed/src/test/java/ShedTest.java", SampleBuild.testClass("ShedTest", ""));
    }

    private Jvm maven(String... arguments) throws Exception {
        return sample().maven(arguments);
    }

    private SampleBuild sample() {
        return new SampleBuild(project);
    }

    private static String plugin(String configuration) {
        return """
                <plugin>
                  <groupId>dev.verbale</groupId><artifactId>verbale-maven-plugin</artifactId><version>%s</version>
                  <extensions>true</extensions>
                  <configuration>%s</configuration>
                </plugin>""".formatted(System.getProperty("tested.version"), configuration);
    }

    private static Path page(Jvm maven) {
        Matcher page = PAGE.matcher(maven.output());
        assertThat(page.find()).as(maven.output()).isTrue();
        return Path.of(page.group(1));
    }

    @Test
    @ByNight
    void a_build_that_stops_at_its_first_failure_has_a_page() throws Exception {
        Jvm maven = maven("test");

        assertThat(maven.output()).contains("BUILD FAILURE", "Verbale: 1 of 2 tests did not pass");
        assertThat(maven.code()).isEqualTo(1);
        assertThat(page(maven))
                .exists()
                .isEqualTo(sample().run().folder().resolve("page/index.html").toRealPath());
    }

    @Test
    void a_quiet_build_says_where_its_page_is_and_nothing_else_of_ours() throws Exception {
        Jvm maven = maven("-q", "-pl", "shed", "test");

        assertThat(maven.output().lines().filter(line -> line.startsWith("Page: file://")))
                .hasSize(1);
        assertThat(maven.output()).doesNotContain("Verbale: All");
    }

    @Test
    @ByNight
    void all_modules_and_forks_are_on_one_page_where_the_build_goes_on() throws Exception {
        // One that ignores failures is the gate's, below.
        Jvm maven = maven("-fn", "-T2", "test"); // -fae is another test's, below

        assertThat(maven.output()).contains("Verbale: 1 of 3 tests did not pass");
        assertThat(page(maven)).exists();
        assertThat(sample().runs()).hasSize(1);
    }

    @Test
    void the_gate_fails_a_build_that_let_its_tests_fail_at_first() throws Exception {
        String gate = "dev.verbale:verbale-maven-plugin:gate";

        Jvm shut = maven("-Dmaven.test.failure.ignore", "test", gate);
        assertThat(shut.code()).isEqualTo(1);
        assertThat(shut.output()).contains("1 of 3 tests did not pass", "BUILD FAILURE");
        assertThat(shut.output()).contains("The gate is closed. 1 test needs attention.");
        assertThat(page(shut)).exists();

        Files.writeString(project.resolve("verbale-rules.yaml"), "gate: {new-failures: 0}");
        Jvm knownFailure = maven("-Dmaven.test.failure.ignore", "-Dverbale.gate.baseline=" + runOf(shut), "test", gate);
        assertThat(knownFailure.output()).contains("the gate is open");
        assertThat(knownFailure.code()).isZero();
    }

    @Test
    @ByNight
    void the_gate_judges_what_was_recorded_and_nothing_is_no_success() throws Exception {
        String gate = "dev.verbale:verbale-maven-plugin:gate";

        Jvm open = maven("-Dmaven.test.failure.ignore", "-pl", "shed", "test", gate);
        Jvm empty = maven("-DskipTests", "test", gate);

        assertThat(open.code()).as(open.output()).isZero();
        assertThat(open.output()).contains("the gate is open", "Only a part of the suite was run: -pl ");
        assertThat(empty.code()).isEqualTo(1);
        assertThat(empty.output()).contains("No test was recorded in", "allowNoTests");
        assertThat(remembered()).as("runs with tests").hasSize(1);
    }

    /** The command line comes from Maven's own repository. */
    @Test
    @ByNight
    void the_end_of_a_job_is_what_its_file_says() throws Exception {
        Files.writeString(
                project.resolve("verbale-ci.yaml"),
                "export: {format: junit, output: target/tests.xml}\ngate: yes\npack: {to: target/run.zip}\n");

        Jvm job = maven("-Dmaven.test.failure.ignore", "test", "dev.verbale:verbale-maven-plugin:ci");

        assertThat(job.code()).isEqualTo(1);
        assertThat(job.output()).contains("1 of 3 tests did not pass", "The gate is closed", "pack ");
        assertThat(project.resolve("target/tests.xml")).content().contains("snails");
        assertThat(project.resolve("target/run.zip")).isRegularFile();
    }

    /** Its name, which is that of the folder around its page. */
    private static String runOf(Jvm build) throws Exception {
        return page(build).getParent().getParent().getFileName().toString();
    }

    @Test
    @ByNight
    void a_class_of_one_name_in_two_modules_is_two_tests_and_the_one_that_failed_is_run_again() throws Exception {
        Path other = project.resolve("shed/src/test/java/BedTest.java");
        Files.writeString(other, SampleBuild.testClass("BedTest", "@Test void fails() { }"));

        Jvm maven = maven("-fae", "test");

        assertThat(maven.output()).contains("BUILD FAILURE", "Verbale: 1 of 5 tests did not pass");
        Run run = sample().run();
        assertThat(run.needingAttention()).extracting(TestResult::key).containsExactly("[beds] BedTest.fails()");
        assertThat(run.flaky()).isEmpty();
        assertThat(run.problems()).isEmpty();
        Jvm gate = verbale("gate");
        assertThat(gate.code()).as(gate.output()).isEqualTo(5);
        Jvm command = verbale("rerun", "--failed");
        assertThat(command.output()).contains("-pl beds ").doesNotContain("shed");
        Files.writeString(
                project.resolve("beds/src/test/java/BedTest.java"),
                SampleBuild.testClass("BedTest", "@Test void fails() { }"));
        String rerun = command.output()
                .lines()
                .filter(line -> line.startsWith("mvn "))
                .findFirst()
                .orElseThrow();
        Jvm again = Jvm.run(Map.of(), project, List.of("sh", "-c", rerun.replaceFirst("verify", "test -o -B")));
        assertThat(again.output()).contains("Tests run: 1,", "BUILD SUCCESS");
        assertThat(RunReader.read(project.resolve("target/verbale")).facts().get("selection"))
                .contains("-pl ", "-Dtest=BedTest#fails");
    }

    private Jvm verbale(String... arguments) throws Exception {
        List<String> all = new ArrayList<>(List.of("dev.verbale.cli.Main"));
        all.addAll(List.of(arguments));
        return Jvm.java(Map.of(), project, all.toArray(String[]::new));
    }

    @Test
    @ByNight
    void what_a_user_sets_stands_above_the_plugin() throws Exception {
        Jvm off = maven("-pl", "shed", "-Dverbale.page=off", "-Dverbale.history=off", "test");
        assertThat(project.resolve(".verbale")).doesNotExist();
        Jvm named = maven(
                "-pl",
                "shed",
                "-Dverbale.run=tonight",
                "-Dverbale.root=" + project.resolve("runs"),
                "-Dverbale.page.title=Beds",
                "test");
        Jvm odd = maven("-pl", "shed", "-Dverbale.page=sometimes", "test");

        assertThat(off.output()).contains("Verbale: ").doesNotContain("Page: ");
        assertThat(page(named))
                .isEqualTo(project.resolve("runs/tonight/page/index.html").toRealPath());
        assertThat(page(named).resolveSibling("data/run.js")).content().contains("\"title\":\"Beds\"");
        assertThat(odd.output()).contains("verbale.page is 'sometimes'. Write one of off, failures, always.");
        assertThat(odd.code()).as("a mistake in here changes no build").isZero();
    }

    @Test
    @ByNight
    void a_page_that_cannot_be_written_is_no_reason_to_forget_the_run() throws Exception {
        Jvm maven = maven("-pl", "shed", "-Dverbale.page.accent=mud", "test");

        assertThat(maven.code()).as(maven.output()).isZero();
        assertThat(maven.output()).contains("could not write the page of this build", "mud");
        assertThat(remembered()).hasSize(1);
    }

    private List<Path> remembered() throws IOException {
        return new HistoryFolder(project.resolve(".verbale/history")).files();
    }

    @Test
    @ByNight
    void older_runs_go_where_somebody_says_how_many_stay_and_others_folders_stay() throws Exception {
        sample().write("pom.xml", SampleBuild.parent(plugin("<page>failures</page><keepRuns>1</keepRuns>")));
        maven("-pl", "shed", "test");
        Path runs = project.resolve("target/verbale");
        RunFolder first = sample().runs().get(0);
        copy(first.path(), runs.resolve("2020-01-02_000000_abcd"));
        copy(first.path(), runs.resolve("kept-by-name"));
        sample().write("target/verbale/2020-01-01_000000_abcd/notes.txt", "no run of ours");

        Jvm second = maven("-pl", "shed", "test");

        assertThat(second.output()).contains("deleted 2 older runs.").doesNotContain("Page: ");
        assertThat(Files.list(runs))
                .hasSize(3)
                .contains(runs.resolve("2020-01-01_000000_abcd"), runs.resolve("kept-by-name"));
        maven("-pl", "shed", "-Dverbale.keep-runs=7", "test");
        assertThat(sample().runs())
                .as("what the command line says stands above")
                .hasSize(3);
    }

    private static void copy(Path from, Path to) throws Exception {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) Files.copy(file, to.resolve(from.relativize(file)));
        }
    }

    @Test
    @ByNight
    void goals_work_by_themselves() throws Exception {
        Jvm build = maven("-pl", "shed", "-Dverbale.page=off", "-Dverbale.keep-runs=many", "test");
        assertThat(build.output()).contains("verbale.keep-runs=many: not a whole number. All runs are kept");

        Jvm page = maven("dev.verbale:verbale-maven-plugin:page");
        Jvm site = maven("-N", "dev.verbale:verbale-maven-plugin:site");
        Jvm help = maven("-N", "dev.verbale:verbale-maven-plugin:help", "-Ddetail");

        assertThat(page(page)).exists();
        assertThat(site.output()).contains("BUILD SUCCESS");
        assertThat(project.resolve("target/site/verbale/index.html")).exists();
        assertThat(help.output())
                .contains(
                        "verbale:gate", "verbale:page", "verbale:prepare", "verbale:site", "keepRuns", "allowNoTests");
    }
}
