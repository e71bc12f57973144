package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Scope;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The command as a process of its own, as a shell or a CI job starts it. */
class CommandLineTest {

    @TempDir
    Path work;

    private Path root;

    /** What a process said and how it ended. */
    private record Said(int code, String out, String err) {}

    @BeforeEach
    void record_a_run() throws Exception {
        root = work.resolve("target/verbale");
        record("2026-11-24_103107_k3f9");
    }

    @Test
    void page_writes_the_newest_run_and_says_where() throws Exception {
        record("2026-11-25_080000_00aa");

        Said said = verbale("page");

        assertThat(said.code()).isZero();
        assertThat(said.err()).isEmpty();
        assertThat(said.out().lines())
                .containsExactly(
                        "1 of 2 tests did not pass: 1 errored. They have one cause.",
                        "Page: target/verbale/2026-11-25_080000_00aa/page/index.html");
        assertThat(work.resolve("target/verbale/2026-11-25_080000_00aa/page/index.html"))
                .exists();
    }

    @Test
    void page_takes_a_run_by_its_name_and_a_place_to_write_to() throws Exception {
        record("2026-11-25_080000_00aa");

        Said said = verbale("page", "2026-11-24_103107_k3f9", "--to", "site/tonight");

        assertThat(said.code()).isZero();
        assertThat(Files.readString(work.resolve("site/tonight/data/run.js"))).contains("2026-11-24_103107_k3f9");
    }

    @Test
    void har_writes_the_exchanges_of_a_run_or_of_some_tests() throws Exception {
        Said all = verbale("har");
        Said some = verbale("har", "--test", "roses", "--to", "out/roses.har");
        Said none = verbale("har", "--test", "RosesTest");
        Said nowhere = verbale("har", "--to", "target/verbale");

        assertThat(all.out().strip()).isEqualTo("2 exchanges: target/verbale/2026-11-24_103107_k3f9/exchanges.har");
        assertThat(Files.readString(work.resolve("target/verbale/2026-11-24_103107_k3f9/exchanges.har")))
                .contains("\"version\" : \"1.2\"", "https://orto.example/gate", "https://orto.example/roses");
        assertThat(some.out().strip()).isEqualTo("1 exchange: out/roses.har");
        assertThat(Files.readString(work.resolve("out/roses.har"))).doesNotContain("orto.example/gate");
        assertThat(none.code()).isEqualTo(2);
        assertThat(none.err()).contains("has 'RosesTest' in its address");
        assertThat(nowhere.code()).isEqualTo(4);
        assertThat(nowhere.err()).contains("the archive was not written to target/verbale");
    }

    @Test
    void page_takes_an_earlier_run_to_compare_with() throws Exception {
        record("2026-11-25_080000_00aa");

        Said said = verbale("page", "--earlier", "2026-11-24_103107_k3f9");
        Said lost = verbale("page", "--earlier", "2026-01-01_000000_0000");

        assertThat(said.code()).isZero();
        Path page = work.resolve("target/verbale/2026-11-25_080000_00aa/page");
        assertThat(Files.readString(page.resolve("data/run.js"))).contains("\"earlier\":\"2026-11-24_103107_k3f9\"");
        assertThat(Files.readString(page.resolve("data/earlier/0.js"))).contains("https://orto.example/gate");
        assertThat(lost.code()).isEqualTo(3);
    }

    @Test
    void failures_tell_what_where_and_which_papers() throws Exception {
        Said said = verbale("failures");

        assertThat(said.code()).isZero();
        assertThat(said.out())
                .contains(
                        "errored    the gate opens",
                        "the hinge is broken",
                        "CommandLineTest.java",
                        "papers in target/verbale/2026-11-24_103107_k3f9/tests/GateTest/the-gate-opens",
                        "01-hinge.txt")
                .doesNotContain("\u001B")
                .doesNotContain("roses grow");
    }

    @Test
    void colours_end_where_they_should_and_are_switched_off_by_the_environment() throws Exception {
        String coloured =
                run(Map.of(), List.of("-Dpicocli.ansi=true"), "failures").out();

        assertThat(coloured).contains("\u001B[35m", "\u001B[1m", "\u001B[0m").doesNotContain("\u001B[21m");
        assertThat(verbale(Map.of("NO_COLOR", "1"), "failures").out()).doesNotContain("\u001B");
    }

    @Test
    void what_a_test_logged_cannot_steer_the_terminal() throws Exception {
        Recorder recorder = Recorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("evil").withClosingLine(false));
        Scope test = recorder.startTest(
                recorder.run(), new Identity("k", "\u001B[2Jcleared @|red x|@", null, null, List.of()));
        recorder.endTest(test, Ending.threw(new AssertionError("\u0007\u001B]0;title\u0007")));

        Said said = verbale("failures", "target/verbale/evil");

        assertThat(said.out())
                .contains("cleared @|red x|@")
                .doesNotContain("\u001B")
                .doesNotContain("\u0007");
    }

    @Test
    void runs_are_listed_with_the_newest_first() throws Exception {
        record("2026-11-25_080000_00aa");

        Said said = verbale("runs");

        assertThat(said.code()).isZero();
        assertThat(said.out().lines().map(line -> line.replaceAll(" +", " ")))
                .hasSize(2)
                .allMatch(line -> line.endsWith("2 tests 1 passed 1 errored"))
                .first()
                .asString()
                .startsWith("2026-11-25_080000_00aa ");
        assertThat(verbale("runs", "--most", "1").out()).contains("and 1 older");
        assertThat(verbale("runs", "--most", "0").code()).isEqualTo(2);
        assertThat(verbale("runs", "target/verbale/2026-11-24_103107_k3f9").err())
                .contains("this is one run");
    }

    @Test
    void help_has_examples_and_exit_codes_and_version_a_version() throws Exception {
        Said help = verbale("--help");
        assertThat(help.code()).isZero();
        assertThat(help.out()).contains("page", "failures", "runs", "Examples:", "Exit codes: 0 done");
        assertThat(verbale("page", "--help").out()).contains("--to", "verbale page --to site/tonight");
        assertThat(verbale("--version").out()).matches("(?s)Verbale \\d+\\.\\d+.*Java .*");
    }

    @Test
    void wrong_arguments_end_with_2() throws Exception {
        assertThat(verbale()).satisfies(said -> {
            assertThat(said.code()).isEqualTo(2);
            assertThat(said.err()).contains("Say what to do: page, failures, runs or har.", "Usage: verbale");
        });
        assertThat(verbale("failure").err()).contains("Unmatched argument", "Did you mean");
        assertThat(verbale("page", "--too", "x").code()).isEqualTo(2);
    }

    @Test
    void no_run_ends_with_3_and_says_what_is_there_instead() throws Exception {
        Files.createDirectories(work.resolve("empty"));
        Files.writeString(Files.createDirectories(work.resolve("foreign")).resolve("pom.xml"), "<project/>");
        Files.createDirectories(work.resolve("half/journals"));

        for (String command : List.of("page", "failures", "runs")) {
            for (String place : List.of("nowhere", "empty", "foreign", "half", "foreign/pom.xml")) {
                Said said = verbale(command, place);
                assertThat(said.code()).as(command + " " + place).isEqualTo(3);
                assertThat(said.out()).isEmpty();
                assertThat(said.err())
                        .as(command + " " + place)
                        .startsWith("verbale: " + place + ": ")
                        .hasLineCount(1);
            }
        }
    }

    @Test
    void a_half_written_run_is_shown_and_its_gaps_are_named() throws Exception {
        Path run = root.resolve("2026-11-24_103107_k3f9");
        Files.delete(run.resolve("run.json"));
        Files.writeString(run.resolve("journals/worker-1.jsonl"), "{\"event\":\"no", StandardOpenOption.APPEND);

        Said said = verbale("failures", run.toString());

        assertThat(said.code()).isZero();
        assertThat(said.out()).contains("the gate opens");
        assertThat(said.err())
                .contains("2 problems", "run.json: cannot be read", "torn: the journal ends in the middle of a line");
    }

    @Test
    void a_page_that_cannot_be_written_ends_with_4_and_harms_nothing() throws Exception {
        Files.writeString(Files.createDirectories(work.resolve("site")).resolve("beach.txt"), "sun");

        Said said = verbale("page", "--to", "site");

        assertThat(said.code()).isEqualTo(4);
        assertThat(said.err())
                .startsWith("verbale: the page was not written to site")
                .contains("would be lost");
        assertThat(work.resolve("site/beach.txt")).hasContent("sun");
        assertThat(verbale("page", "--to", "site/beach.txt").err()).contains("is a file");
    }

    @Test
    void another_root_comes_from_the_environment() throws Exception {
        Files.move(root, work.resolve("elsewhere"));

        assertThat(verbale(Map.of("VERBALE_ROOT", "elsewhere"), "runs").out()).contains("2026-11-24_103107_k3f9");
    }

    private void record(String name) throws IOException {
        Recorder recorder = Recorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withClosingLine(false));
        Scope good = recorder.startTest(
                recorder.run(), new Identity("roses", "roses grow", "sample.GateTest", "roses", List.of()));
        recorder.exchange("GET", "https://orto.example/roses").status(200).ended();
        recorder.endTest(good, Ending.passed());
        Scope bad = recorder.startTest(
                recorder.run(), new Identity("gate", "the gate opens", "sample.GateTest", "gate", List.of()));
        recorder.exchange("GET", "https://orto.example/gate").status(500).ended();
        recorder.attach("hinge", "rust".getBytes(StandardCharsets.UTF_8), "text/plain");
        var failure = new IllegalStateException("the hinge is broken");
        failure.setStackTrace(
                new StackTraceElement[] {new StackTraceElement("sample.GateTest", "gate", "CommandLineTest.java", 7)});
        recorder.endTest(bad, Ending.threw(failure));
    }

    private Said verbale(String... arguments) throws Exception {
        return verbale(Map.of(), arguments);
    }

    private Said verbale(Map<String, String> environment, String... arguments) throws Exception {
        return run(environment, List.of(), arguments);
    }

    private Said run(Map<String, String> environment, List<String> jvm, String... arguments) throws Exception {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(jvm);
        command.addAll(List.of("-cp", absolute(System.getProperty("java.class.path")), Main.class.getName()));
        command.addAll(List.of(arguments));
        Path err = Files.createTempFile(work, "err", ".txt");
        var process = new ProcessBuilder(command).directory(work.toFile()).redirectError(err.toFile());
        process.environment().remove("VERBALE_ROOT");
        process.environment().putAll(environment);
        Process running = process.start();
        String out = new String(running.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        int code = running.waitFor();
        String complained = Files.readString(err);
        Files.delete(err);
        return new Said(code, out, complained);
    }

    private static String absolute(String classPath) {
        List<String> places = new ArrayList<>();
        for (String place : classPath.split(File.pathSeparator))
            places.add(Path.of(place).toAbsolutePath().toString());
        return String.join(File.pathSeparator, places);
    }
}
