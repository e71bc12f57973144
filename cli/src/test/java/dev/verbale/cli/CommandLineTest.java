package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.query.PostgresServer;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.AttachmentKind;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The command, in a folder of its own; some of them as a process, as a shell or a CI job starts it. */
class CommandLineTest {

    @TempDir
    static Path work;

    private static StayingJvm jvm;

    private Path root;

    @BeforeAll
    static void start_the_jvm() throws Exception {
        jvm = new StayingJvm(work, Map.of());
    }

    @AfterAll
    static void end_the_jvm() throws Exception {
        jvm.close();
    }

    @BeforeEach
    void record_a_run() throws Exception {
        root = work.resolve("target/verbale");
        record("2026-11-24_103107_k3f9");
    }

    @AfterEach
    void empty_the_folder() throws Exception {
        try (Stream<Path> left = Files.walk(work)) {
            for (Path file : left.sorted(Comparator.reverseOrder()).toList())
                if (!file.equals(work)) Files.delete(file);
        }
    }

    @Test
    void page_writes_the_newest_run_and_says_where() throws Exception {
        record("2026-11-25_080000_00aa");

        Output output = process("page");

        assertThat(output.code()).isZero();
        assertThat(output.err()).isEmpty();
        assertThat(output.out().lines())
                .containsExactly(
                        "1 of 2 tests did not pass: 1 errored, for one reason. The run is incomplete: the journal of "
                                + "worker-1 was never closed, as when a JVM is killed or still runs.",
                        "Page: target/verbale/2026-11-25_080000_00aa/page/index.html");
        assertThat(work.resolve("target/verbale/2026-11-25_080000_00aa/page/index.html"))
                .exists();
    }

    @Test
    void page_takes_a_run_by_its_name_and_a_folder_to_write_to() throws Exception {
        record("2026-11-25_080000_00aa");

        Output output = verbale("page", "2026-11-24_103107_k3f9", "--output", "site/tonight");

        assertThat(output.code()).isZero();
        assertThat(Files.readString(work.resolve("site/tonight/data/run.js"))).contains("2026-11-24_103107_k3f9");
    }

    @Test
    void page_is_one_file_where_that_is_wanted_with_a_team_s_own_look() throws Exception {
        Files.writeString(work.resolve("letter.html"), "Dear neighbours");

        Output usual = verbale("page", "--single-file", "--title", "Orto & friends", "--leave-out", "environment");
        Output foreign = verbale("page", "--single-file", "--output", "letter.html");
        Output wrong = verbale("page", "--accent", "red");

        String file = "target/verbale/2026-11-24_103107_k3f9/page.html";
        assertThat(usual.out()).endsWith("Page: " + file + "\n");
        assertThat(Files.readString(work.resolve(file)))
                .startsWith("<!doctype html>\n<!-- A page of Verbale in one file.")
                .contains("\"title\":\"Orto & friends\"")
                .doesNotContain("\"facts\":[");
        assertThat(work.resolve(file).resolveSibling("page")).doesNotExist();
        assertThat(foreign.code()).isEqualTo(4);
        assertThat(foreign.err()).contains("letter.html", "would be lost");
        assertThat(work.resolve("letter.html")).hasContent("Dear neighbours");
        assertThat(wrong.code()).isEqualTo(2);
        assertThat(wrong.err()).contains("the colour 'red' is none; write six digits such as #b5532a");
    }

    @Test
    void har_writes_the_exchanges_of_a_run_or_of_some_tests() throws Exception {
        Output all = verbale("export", "--format", "har");
        Output some = verbale("export", "--format", "har", "--test", "roses", "--output", "out/roses.har");
        Output none = verbale("export", "--format", "har", "--test", "RosesTest");
        Output nowhere = verbale("export", "--format", "har", "--output", "target/verbale");

        assertThat(all.out().strip()).isEqualTo("2 exchanges: target/verbale/2026-11-24_103107_k3f9/exchanges.har");
        assertThat(Files.readString(work.resolve("target/verbale/2026-11-24_103107_k3f9/exchanges.har")))
                .contains("\"version\" : \"1.2\"", "https://orto.example/gate", "https://orto.example/roses");
        assertThat(some.out().strip()).isEqualTo("1 exchange: out/roses.har");
        assertThat(Files.readString(work.resolve("out/roses.har"))).doesNotContain("orto.example/gate");
        assertThat(none.code()).isEqualTo(2);
        assertThat(none.err()).contains("has 'RosesTest' in its id");
        assertThat(nowhere.code()).isEqualTo(4);
        assertThat(nowhere.err()).contains("the archive was not written to target/verbale");
    }

    @Test
    void brief_prints_what_failed_as_text_and_no_longer_than_it_may_be() throws Exception {
        Output one = verbale("failures", "brief", "--test", "gate", "--size", "700");
        Output without = verbale("failures", "brief");
        Output none = verbale("failures", "brief", "--test", "roses");
        Output tooShort = verbale("failures", "brief", "--size", "20");
        Path sources = Files.createDirectories(work.resolve("src/test/java/sample"));
        Files.writeString(sources.resolve("CommandLineTest.java"), "a\nb\nc\nd\ne\nf\nopen(gate);\n");
        Output code = verbale("failures", "brief", "--test", "gate", "--sources", "src");
        Output nowhere = verbale("failures", "brief", "--sources", "nowhere");

        assertThat(one.code()).isZero();
        assertThat(one.out())
                .startsWith("# ")
                .contains("the gate opens", "errored after", "## Failure")
                .hasSizeLessThanOrEqualTo(701);
        assertThat(without.out()).contains("the gate opens", "GET https://orto.example/gate");
        assertThat(none.code()).isEqualTo(2);
        assertThat(none.err()).contains("that did not pass has 'roses' in its id");
        assertThat(tooShort.code()).isEqualTo(2);
        assertThat(code.out()).contains("## Source, CommandLineTest.java", "> 7  open(gate);");
        assertThat(nowhere.code()).isEqualTo(2);
        assertThat(nowhere.err()).contains("--sources nowhere is no folder");
    }

    @Test
    void page_takes_a_baseline_to_compare_with() throws Exception {
        record("2026-11-25_080000_00aa");

        Output output = verbale("page", "--baseline", "2026-11-24_103107_k3f9");
        Output lost = verbale("page", "--baseline", "2026-01-01_000000_0000");

        assertThat(output.code()).isZero();
        Path page = work.resolve("target/verbale/2026-11-25_080000_00aa/page");
        assertThat(Files.readString(page.resolve("data/run.js"))).contains("\"baseline\":\"2026-11-24_103107_k3f9\"");
        assertThat(Files.readString(page.resolve("data/baseline/0.js"))).contains("https://orto.example/gate");
        assertThat(lost.code()).isEqualTo(3);
    }

    @Test
    void failures_tell_what_where_and_which_attachments() throws Exception {
        Output output = process("failures");

        assertThat(output.code()).isZero();
        assertThat(output.out())
                .containsPattern(
                        "GET orto.example/gate answered 500  [0-9a-f]{12}\n    the hinge is broken\n    the gate opens  CommandLineTest.java:\\d+\n")
                .contains("Each test, with its attachments: verbale failures --all")
                .doesNotContain("\u001B")
                .doesNotContain("roses grow");
        assertThat(output.out().lines()).allMatch(line -> line.length() <= 80);
        assertThat(process("failures", "--all").out())
                .contains(
                        "errored    the gate opens",
                        "attachments in target/verbale/2026-11-24_103107_k3f9/tests/GateTest/the-gate-opens",
                        "01-hinge.txt")
                .doesNotContain("roses grow");
    }

    @Test
    void one_reason_is_briefed_by_its_id_or_the_beginning_of_it() throws Exception {
        String id = verbale("failures").out().replaceAll("(?s).*answered 500  ([0-9a-f]{12}).*", "$1");

        assertThat(verbale("failures", "brief", id).out()).contains("# the gate opens");
        assertThat(verbale("failures", "brief", id.substring(0, 4), "2026-11-24_103107_k3f9")
                        .out())
                .contains("# the gate opens");
        assertThat(verbale("failures", "brief", "00000000").err())
                .contains("No failure of", "verbale failures lists them");
        assertThat(verbale("failures", "brief", id, "abcdef12").code()).isEqualTo(2);
        assertThat(verbale("failures", "brief", id, "--test", "gate").code()).isEqualTo(2);
    }

    @Test
    void a_reason_leads_to_the_page_where_a_terminal_takes_links() throws Exception {
        verbale("page");

        String linked =
                process(Map.of(), List.of("-Dpicocli.ansi=true"), "failures").out();

        assertThat(linked)
                .containsPattern(
                        "\u001B]8;;file://\\S+/2026-11-24_103107_k3f9/page/index.html#/tests\\?reason=([0-9a-f]{12})\u001B\\\\\u001B\\[2m\\1\u001B\\[0m\u001B]8;;\u001B\\\\");
        assertThat(verbale("failures").out()).doesNotContain("]8;;");
    }

    @Test
    void colours_end_where_they_should_and_are_switched_off_by_the_environment() throws Exception {
        String coloured =
                process(Map.of(), List.of("-Dpicocli.ansi=true"), "failures").out();

        assertThat(coloured).contains("\u001B[31m", "\u001B[1m", "\u001B[0m").doesNotContain("\u001B[21m");
        assertThat(process(Map.of("NO_COLOR", "1"), List.of(), "failures").out())
                .doesNotContain("\u001B");
    }

    @Test
    void what_a_test_logged_cannot_steer_the_terminal() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("evil").withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("k", "\u001B[2Jcleared @|red x|@").build());
        recorder.endTest(test, TestEnd.threw(new AssertionError("\u0007\u001B]0;title\u0007")));

        Output output = verbale("failures", "target/verbale/evil");

        assertThat(output.out())
                .contains("cleared @|red x|@")
                .doesNotContain("\u001B")
                .doesNotContain("\u0007");
    }

    @Test
    void runs_are_listed_with_the_newest_first() throws Exception {
        record("2026-11-25_080000_00aa");

        Output output = process("runs");

        assertThat(output.code()).isZero();
        assertThat(output.out().lines().map(line -> line.replaceAll(" +", " ")))
                .hasSize(2)
                .allMatch(line -> line.endsWith("2 tests 1 passed 1 errored incomplete"))
                .first()
                .asString()
                .startsWith("2026-11-25_080000_00aa ");
        assertThat(verbale("runs", "--limit", "1").out()).contains("and 1 older");
        assertThat(verbale("runs", "--limit", "0").code()).isEqualTo(2);
        assertThat(verbale("runs", "target/verbale/2026-11-24_103107_k3f9").err())
                .contains("this is one run");
    }

    @Test
    void runs_are_found_by_their_tags() throws Exception {
        AdapterRecorder night = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(root)
                .withRun("2026-11-25_080000_00aa")
                .withSummaryLine(false));
        night.fact("tags", "nightly, staging");

        assertThat(verbale("runs", "--tag", "staging").out().lines())
                .singleElement()
                .asString()
                .startsWith("2026-11-25_080000_00aa ")
                .endsWith("nightly, staging");
        assertThat(verbale("runs", "--tag", "staging", "--tag", "nightly").out().lines())
                .hasSize(1);
        assertThat(verbale("runs", "--tag", "night").out()).isEmpty();
        assertThat(verbale("runs", "--tag", "night").err()).contains("No run in target/verbale has the tag night.");
    }

    @Test
    void alone_it_says_what_is_here_and_what_to_type_next() throws Exception {
        Output red = process();
        assertThat(red.code()).isZero();
        assertThat(red.out())
                .startsWith("target/verbale/2026-11-24_103107_k3f9\n1 of 2 tests did not pass")
                .contains(
                        "\n  verbale failures    what failed, and why\n",
                        "\n  verbale page        its page\n",
                        "verbale help");
        assertThat(verbale("--version").out()).matches("(?s)Verbale \\d+\\.\\d+.*Java .*");

        Files.createDirectories(work.resolve("beds/target"));
        Files.move(work.resolve("target/verbale"), work.resolve("beds/target/verbale"));
        assertThat(verbale().out())
                .startsWith("beds/target/verbale/2026-11-24_103107_k3f9\n")
                .contains("  verbale failures beds/target/verbale/2026-11-24_103107_k3f9");
        Files.move(work.resolve("beds"), work.resolve("hidden"));
        Files.move(work.resolve("hidden/target"), work.resolve("hidden/build"));
        Output nothing = verbale();
        assertThat(nothing.code()).isZero();
        assertThat(nothing.out()).startsWith("There is no run in target/verbale, and none in a module's.");
    }

    @Test
    void runs_are_remembered_and_compared() throws Exception {
        Output nothing = verbale("history", "flaky");
        Output alone = verbale("compare");
        close("2026-11-24_103107_k3f9");
        Output added = verbale("history", "add");
        record("2026-11-25_080000_00aa");
        verbale("history", "add", "2026-11-25_080000_00aa");
        Files.writeString(work.resolve(".verbale/history/2026-11-01_000000_0000.digest.jsonl.gz"), "broken");

        Output compared = verbale("compare");
        Output test = verbale("history", "test", "gate");

        assertThat(nothing.code()).isEqualTo(3);
        assertThat(nothing.err()).contains(".verbale/history: no run is remembered there");
        assertThat(alone.code()).as("a first build is no mistake").isZero();
        assertThat(alone.out()).contains("There is no earlier run to compare 2026-11-24_103107_k3f9 with");
        assertThat(added.out().strip())
                .isEqualTo("2026-11-24_103107_k3f9: .verbale/history/2026-11-24_103107_k3f9.digest.jsonl.gz");
        assertThat(work.resolve(".verbale/.gitignore")).hasContent("*");
        assertThat(compared.out())
                .startsWith("1 still failing.")
                .contains(
                        "2026-11-25_080000_00aa beside 2026-11-24_103107_k3f9, the newest complete run",
                        "Still failing  1 failure, 1 reason\n  GET orto.example/gate answered 500");
        assertThat(compared.err())
                .contains(
                        ".verbale/history/2026-11-01_000000_0000.digest.jsonl.gz: cannot be read (Not in GZIP format)");
        assertThat(test.out()).contains("the gate opens\n  FF  2 runs", "fails since 2", "and never passed");
        assertThat(verbale("runs", "--remembered").out().lines().toList())
                .hasSize(2)
                .first()
                .asString()
                .startsWith("2026-11-2");
        assertThat(verbale("history", "reasons").out()).contains("in 2 runs, 2 failures");
        assertThat(verbale("history", "slower").out()).contains("No test is slower than noise explains.");
        assertThat(verbale("history", "flaky").out()).contains("No test is flaky, as far as these runs tell.");
        assertThat(verbale("runs", "--remembered", "--branch", "none").err())
                .contains("no run of branch 'none' is remembered");
        assertThat(verbale("history", "test", "nowhere").code()).isEqualTo(2);
        assertThat(verbale("history").err()).contains("Say what to do: add, test");
    }

    @Test
    void a_baseline_is_a_run_a_name_or_a_word() throws Exception {
        verbale("history", "add");
        record("2026-11-25_080000_00aa");

        assertThat(verbale("compare", "--baseline", "previous").out()).contains("beside 2026-11-24_103107_k3f9");
        assertThat(verbale("compare", "--baseline", "2026-11-24_103107_k3f9").out())
                .contains("beside 2026-11-24_103107_k3f9");
        assertThat(verbale("compare", "--baseline", "target/verbale/2026-11-24_103107_k3f9")
                        .out())
                .contains("beside 2026-11-24_103107_k3f9");
        assertThat(verbale("compare", "--baseline", "last-good").err())
                .contains("no good run of this branch is known that can be compared with 2026-11-25_080000_00aa");
        assertThat(verbale("compare", "--baseline", "branch:x").err())
                .contains("no complete run of branch 'x' is known");
        assertThat(verbale("compare", "--baseline", "lost").code()).isEqualTo(3);
        assertThat(verbale("compare", "--baseline", "2026-11-25_080000_00aa").err())
                .contains("'2026-11-25_080000_00aa' is the run itself");
    }

    @Test
    void rules_label_failures_and_close_a_gate() throws Exception {
        Output closed = process("gate");
        Files.writeString(work.resolve("verbale-rules.yaml"), """
                triage:
                  - when: {message: hinge}
                    label: environment
                    owner: Ada
                    known-until: 2020-01-01
                gate: {failures: 1, unclosed: 1}
                """);

        Output open = verbale("gate");
        Output triage = verbale("failures", "--by-label");
        Output tried = verbale(
                "failures", "--by-label", "--rules", "verbale-rules.yaml", "2026-11-24_103107_k3f9", "target/verbale");
        Files.writeString(work.resolve("bad.yaml"), "gate: {failure: 1}");
        Output bad = verbale("gate", "--rules", "bad.yaml");

        assertThat(closed.code()).isEqualTo(5);
        assertThat(closed.out()).startsWith("The gate is closed.\n  1 test needs attention.\n");
        assertThat(open.code()).isZero();
        assertThat(open.out()).startsWith("The gate is open.");
        assertThat(triage.out())
                .contains(
                        "1 test needs attention, 0 without a label, 1 known only until a day that is over.",
                        "environment, known only until a day that is over  1 test, 1 reason",
                        "environment, owner Ada, was known until 2020-01-01: look at it again",
                        "the gate opens");
        assertThat(tried.out())
                .contains("line 2, environment: 2 failures, such as the gate opens", "no rule: 0 failures");
        assertThat(bad.code()).isEqualTo(2);
        assertThat(bad.err()).contains("bad.yaml:1:8: 'failure' is not known here");
        assertThat(verbale("gate", "--rules", "lost.yaml").code()).isEqualTo(3);
    }

    /** In a repository of its own, with a run before a commit and one after it. */
    @Test
    void a_comparison_names_the_first_difference_and_the_commits_between() throws Exception {
        git("init", "-q");
        commit("src/test/java/sample/OtherTest.java", "Plant roses");
        record("2026-11-23_080000_00aa", 200, null);
        commit("src/test/java/sample/GateTest.java", "Oil the hinge");
        commit("docs/readme.md", "Describe the gate");
        record("2026-11-25_080000_00aa", 500, new IllegalStateException("the hinge is broken"));

        Output output = verbale("compare", "--baseline", "2026-11-23_080000_00aa", "2026-11-25_080000_00aa");

        assertThat(output.out())
                .startsWith("1 new failure.")
                .contains("first different: GET /gate: 200, now 500")
                .containsPattern(
                        "Commits since, those in the failing tests' own classes first  2\n  \\w+ Oil the hinge\n  \\w+ Describe")
                .doesNotContain("Plant roses");
    }

    @Test
    void a_test_is_set_beside_what_it_did_then() throws Exception {
        git("init", "-q");
        commit("a", "Plant roses");
        record("2026-11-23_080000_00aa", 200, null);
        record("2026-11-25_080000_00aa", 500, new IllegalStateException("the hinge is broken"));

        String[] comparing = {
            "compare",
            "--test",
            "gate",
            "--images",
            "images",
            "--baseline",
            "2026-11-23_080000_00aa",
            "2026-11-25_080000_00aa"
        };
        Output single = verbale(comparing);
        Output again = verbale(comparing);
        Output none =
                verbale("compare", "--test", "roses", "--baseline", "2026-11-23_080000_00aa", "2026-11-25_080000_00aa");

        assertThat(single.out())
                .contains("the gate opens  passed, now errored")
                .contains("first different: GET /gate: 200, now 500")
                .contains("\n  GET /gate: 200, now 500\n")
                .contains("  screenshot: 50.0 % of its points are not the same: images/difference-1.png");
        assertThat(ImageIO.read(work.resolve("images/difference-1.png").toFile())
                        .getWidth())
                .isEqualTo(20);
        assertThat(again.code()).isEqualTo(4);
        assertThat(again.err()).contains("is there already");
        assertThat(verbale("compare", "--images", "images").code()).isEqualTo(2);
        assertThat(none.code()).isEqualTo(2);
        assertThat(none.err()).contains("No test of both runs has 'roses' in its id.");
    }

    @Test
    void what_is_remembered_comes_into_a_teams_database_where_who_may_read_asks() throws Exception {
        verbale("history", "add");
        try (PostgresServer server = PostgresServer.start()) {
            String url = server.url(server.newDatabase());
            var owner = Map.of("VERBALE_DATABASE_PASSWORD", "owner's");
            var reader = Map.of("VERBALE_DATABASE_PASSWORD", "reader's");
            String[] fill = {"history", "index", "--database", url, "--user", "owner", "--reader", "may_read"};

            Output filled = process(owner, List.of(), fill);
            Output again = process(owner, List.of(), fill);
            Output asked = process(
                    reader,
                    List.of(),
                    "runs",
                    "query",
                    "--database",
                    url,
                    "--user",
                    "may_read",
                    "select count(*) n from tests",
                    "--format",
                    "csv");
            Output wrong = process(
                    Map.of("VERBALE_DATABASE_PASSWORD", "guessed"),
                    List.of(),
                    "runs",
                    "query",
                    "--database",
                    url,
                    "--user",
                    "may_read",
                    "select 1");
            Output written = process(
                    reader, List.of(), "runs", "query", "--database", url, "--user", "may_read", "delete from tests");
            Files.writeString(work.resolve(".verbale/history/2026-11-01_000000_0000.digest.jsonl.gz"), "torn");
            Output lacking = process(owner, List.of(), fill);

            assertThat(filled.err()).isEmpty();
            assertThat(filled.out().strip()).isEqualTo("1 run is in the tables: 1 came in, 0 went");
            assertThat(again.out().strip()).isEqualTo("1 run is in the tables: 0 came in, 0 went");
            assertThat(asked.out()).isEqualTo("n\r\n2\r\n");
            assertThat(wrong.code()).isNotZero();
            assertThat(wrong.err()).startsWith("verbale: ").contains("password").doesNotContain("guessed", "\tat ");
            assertThat(written.code()).isEqualTo(2);
            assertThat(lacking.out().strip()).isEqualTo(again.out().strip());
            assertThat(lacking.err()).contains("2026-11-01_000000_0000.digest.jsonl.gz");
            assertThat(lacking.code()).as("a table that lacks a run").isEqualTo(3);
        }
    }

    @Test
    void questions_in_sql_are_answered_and_change_nothing() throws Exception {
        process("history", "add");
        String question = "select name, outcome from tests order by name";

        assertThat(verbale("runs", "query", question, "--format", "csv").out())
                .isEqualTo("name,outcome\r\nroses grow,passed\r\nthe gate opens,errored\r\n");
        assertThat(verbale("runs", "query", "--remembered", question, "--format", "json")
                        .out())
                .isEqualTo(
                        "[\n{\"name\":\"roses grow\",\"outcome\":\"passed\"},\n{\"name\":\"the gate opens\",\"outcome\":\"errored\"}\n]\n");
        assertThat(verbale("runs", "query", "--tables").out()).contains("exchanges    status", "tests        outcome");
        Output refused = verbale("runs", "query", "--remembered", "drop table stored_runs");
        assertThat(refused.code()).isEqualTo(2);
        assertThat(refused.err()).startsWith("verbale: ").doesNotContain("\tat ");
        assertThat(verbale("runs", "query").code()).isEqualTo(2);
        assertThat(verbale("runs", "query", "--remembered", question, "target/verbale")
                        .code())
                .isEqualTo(2);
        assertThat(verbale("runs", "query", "--database", "jdbc:h2:mem:x", "--user", "x", question)
                        .err())
                .contains("--database takes an address such as jdbc:postgresql://host/name");
    }

    @Test
    void a_question_without_an_end_is_broken_off() throws Exception {
        String counts = "with recursive n(i) as (select 1 union all select i + 1 from n) select count(*) from n";
        String goesOn = "with recursive n(i) as (select 1 union all select i + 1 from n) select i from n";

        Output counted = verbale("runs", "query", counts, "--time-limit", "1");
        assertThat(counted.code()).isEqualTo(2);
        assertThat(counted.err()).contains("it was broken off after 1 s", "--time-limit");
        assertThat(verbale("runs", "query", goesOn, "--time-limit", "1", "--format", "csv")
                        .err())
                .contains("it was broken off after 1 s");
        assertThat(verbale("runs", "query", "select 1 one", "--time-limit", "0").code())
                .isZero();
        assertThat(verbale("runs", "query", "select 1 one", "--time-limit", "-1")
                        .err())
                .contains("0 seconds or more");
    }

    @Test
    void a_run_that_no_collector_takes_is_not_said_to_be_sent() throws Exception {
        Output nobody = verbale("export", "--format", "otlp", "--endpoint", "http://127.0.0.1:1", "--patience", "10");

        assertThat(nobody.code()).isEqualTo(4);
        assertThat(nobody.err())
                .isEqualTo(
                        "verbale: the run was not sent to http://127.0.0.1:1: spans were not taken: nobody answers there\n");
        assertThat(verbale("export", "--format", "otlp", "--endpoint", "nowhere")
                        .code())
                .isEqualTo(2);
    }

    @Test
    void what_changed_since_a_commit_is_run_again() throws Exception {
        git("init", "-q");
        commit("src/test/java/sample/RoseTest.java", "package sample; class RoseTest { }");
        Path classes = Files.createDirectories(work.resolve("target/test-classes"));
        Files.writeString(
                work.resolve("src/test/java/sample/RoseTest.java"), "package sample; class RoseTest { int i; }");
        int compiled = javax.tools.ToolProvider.getSystemJavaCompiler()
                .run(null, null, null, "-d", classes.toString(), work + "/src/test/java/sample/RoseTest.java");
        assertThat(compiled).isZero();

        Output some = verbale("rerun", "--changed-since", "HEAD", "--ignore", "{target/**,*.txt}");
        Output all = verbale("rerun", "--changed-since", "HEAD");

        assertThat(some.err()).isEqualTo("verbale: 1 of 1 class with tests can be affected\n");
        assertThat(some.out()).startsWith("mvn verify -Dtest=sample.RoseTest ");
        assertThat(all.err()).contains("is no source of a class", "so all 1 class with tests can be affected");
        assertThat(all.out()).isEqualTo("mvn verify\n");
        assertThat(verbale("rerun", "--changed-since", "nope").code()).isEqualTo(2);
        assertThat(verbale("rerun", "--changed-since", "HEAD", "--flaky").code())
                .isEqualTo(2);
    }

    @Test
    void all_tests_are_planned_for_several_machines_each_once() throws Exception {
        Path sources = Files.createDirectories(work.resolve("plan"));
        Path classes = Files.createDirectories(work.resolve("target/test-classes"));
        List<String> names = List.of("AsterTest", "BeanTest", "CressTest", "DillTest", "ElderTest");
        for (String name : names) {
            Path source = Files.writeString(sources.resolve(name + ".java"), "package beds; class " + name + " { }");
            assertThat(javax.tools.ToolProvider.getSystemJavaCompiler()
                            .run(null, null, null, "-d", classes.toString(), source.toString()))
                    .isZero();
        }

        Output all = verbale("rerun", "--shards", "2", "--history", "none");
        Output second = verbale("rerun", "--shards", "2", "--shard", "2", "--history", "none", "--for", "junit");

        assertThat(all.err())
                .startsWith("verbale: 2 machines end after ")
                .contains("of 5 of them nothing is remembered");
        assertThat(all.out().lines()).hasSize(2).allMatch(line -> line.startsWith("mvn verify -Dtest="));
        for (String name : names)
            assertThat(all.out().split("-Dtest=[^ ]*beds." + name, -1)).as(name).hasSize(2);
        assertThat(all.out()).contains("'-Dverbale.fact.shard=1 of 2'", "'-Dverbale.fact.shard=2 of 2'");
        assertThat(second.out().lines())
                .singleElement()
                .asString()
                .startsWith("java '-Dverbale.fact.shard=2 of 2' org.junit.platform.console.ConsoleLauncher execute")
                .contains("--select-class=beds.");
        assertThat(verbale("rerun", "--shards", "9", "--shard", "9", "--history", "none")
                        .err())
                .contains("machine 9 has nothing to run");
        assertThat(verbale("rerun", "--shards", "9", "--history", "none").out())
                .as("no shard is missed that has nothing to run")
                .contains("fact.shard=5 of 5'")
                .doesNotContain("of 9");
        for (String[] wrong : new String[][] {
            {"--shards", "0"},
            {"--shard", "1"},
            {"--shards", "2", "--shard", "3"},
            {"--shards", "2", "--flaky"},
            {"--shards", "2", "--run"}
        }) {
            List<String> words = new ArrayList<>(List.of("rerun"));
            words.addAll(List.of(wrong));
            assertThat(verbale(words.toArray(String[]::new)).code())
                    .as(words.toString())
                    .isEqualTo(2);
        }
        Output within = verbale("rerun", "--within", "20m", "--history", "none");
        assertThat(within.err()).contains("5 of 5 classes fit, with 100 % of the failures that are to be expected");
        assertThat(within.out())
                .contains("'-Dverbale.fact.selection=within 20m'")
                .doesNotContain("fact.shard");
        assertThat(verbale("rerun", "--within", "soon").err()).contains("'soon' is no time such as 90s, 20m or 1h");
        dev.verbale.folder.FolderTree.delete(classes);
        assertThat(verbale("rerun", "--shards", "2").err())
                .contains("no compiled tests were found", "mvn test-compile");
    }

    private void commit(String file, String subject) throws Exception {
        Path path = work.resolve(file);
        Files.createDirectories(path.getParent());
        Files.writeString(path, subject);
        git("add", file);
        git("-c", "user.name=Ada", "-c", "user.email=ada@orto.example", "commit", "-q", "-m", subject);
    }

    private void git(String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        Process git =
                new ProcessBuilder(command).directory(work.toFile()).inheritIO().start();
        assertThat(git.waitFor()).isZero();
    }

    /** A run that says on which commit it is, as the recorder does in a checkout. */
    private void record(String name, int status, Throwable failure) throws Exception {
        Process head = new ProcessBuilder("git", "rev-parse", "HEAD")
                .directory(work.toFile())
                .start();
        String commit = new String(head.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withSummaryLine(false));
        recorder.fact("commit", commit);
        Scope gate = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("gate", "the gate opens")
                        .className("sample.GateTest")
                        .methodName("gate")
                        .build());
        recorder.exchange("GET", "https://orto.example/gate").status(status).ended();
        recorder.register(new GateScreenshot(status == 200 ? 10 : 20));
        recorder.captureEvidence(new AssertionError("look"));
        recorder.endTest(gate, failure == null ? TestEnd.passed() : TestEnd.threw(failure));
    }

    /** A screenshot with a gate that is so wide. */
    private record GateScreenshot(int wide) implements EvidenceSource {
        @Override
        public String name() {
            return "gate";
        }

        @Override
        public void capture(Evidence evidence) {
            var image = new BufferedImage(20, 10, BufferedImage.TYPE_INT_RGB);
            Graphics2D graphics = image.createGraphics();
            graphics.fillRect(0, 0, wide, 10);
            graphics.dispose();
            var png = new ByteArrayOutputStream();
            try {
                ImageIO.write(image, "png", png);
            } catch (IOException never) {
                throw new UncheckedIOException(never);
            }
            evidence.attach("screenshot", AttachmentKind.SCREENSHOT, png.toByteArray(), MediaType.PNG);
        }
    }

    @Test
    void runs_are_joined_into_one() throws Exception {
        record("2026-11-25_080000_00aa");

        Output joined = verbale("join", "2026-11-24_103107_k3f9", "2026-11-25_080000_00aa", "--output", "all/tonight");
        Output failures = verbale("failures", "--all", "all/tonight");
        Output page = verbale("page", "all/tonight");
        Output refused = verbale("join", "2026-11-24_103107_k3f9", "--output", "target");

        assertThat(joined.code()).isZero();
        assertThat(joined.out()).contains("1 of 2 tests did not pass: 1 errored", "2 runs joined in all/tonight");
        assertThat(failures.out()).containsPattern("attachments in all/tonight/shards/2026-11-2\\w+/tests/GateTest");
        assertThat(page.code()).isZero();
        assertThat(refused.code()).isEqualTo(3);
        assertThat(refused.err()).contains("target: this folder holds something else");
    }

    @Test
    void a_run_is_exported_to_a_file_or_to_whoever_reads_the_output() throws Exception {
        Output xml = process("export", "--format", "junit", "--output", "out/TEST-all.xml");
        Output markdown = verbale("export", "--format", "markdown");
        Output csv = verbale("export", "--format", "tests-csv");
        Output json = verbale("export", "--format", "JSON");

        assertThat(xml.out().strip()).isEqualTo("junit: out/TEST-all.xml");
        assertThat(Files.readString(work.resolve("out/TEST-all.xml")))
                .contains("<testsuite name=\"sample.GateTest\" tests=\"2\"");
        assertThat(markdown.out()).startsWith("## 1 of 2 tests did not pass").contains("run 2026\\-11\\-24");
        assertThat(csv.out().lines()).hasSize(3);
        assertThat(json.out()).startsWith("{\"format\":1").endsWith("}\n");
        assertThat(verbale("export", "--format", "pdf").err()).contains("'pdf' is none of junit, markdown");
        assertThat(verbale("export").code()).isEqualTo(2);
        Output again = verbale("export", "--format", "json", "--output", "out/TEST-all.xml");
        assertThat(again.code()).isEqualTo(4);
        assertThat(again.err()).contains("it is there already. Name another file, or add --overwrite");
        assertThat(verbale("export", "--format", "json", "--output", "out/TEST-all.xml", "--overwrite")
                        .code())
                .isZero();
    }

    @Test
    void runs_are_swept_by_a_rule() throws Exception {
        record("2026-11-25_080000_00aa");

        assertThat(verbale("runs", "sweep").err()).contains("Say what stays: --keep-runs, --keep-days or --max-size");
        assertThat(verbale("runs", "sweep", "--max-size", "much").err()).contains("not much");
        assertThat(verbale("runs", "sweep", "--keep-runs", "1").out())
                .contains("2026-11-24_103107_k3f9  stays: ", "0 runs of 2 deleted");
        Output dry = verbale("runs", "sweep", "--max-size", "0", "--also-failing", "--dry-run");
        assertThat(dry.code()).isZero();
        assertThat(root.resolve("2026-11-24_103107_k3f9/run.json")).exists();
    }

    @Test
    void what_others_wrote_becomes_a_run() throws Exception {
        verbale("export", "--format", "junit", "--output", "reports/TEST-all.xml");
        Files.writeString(work.resolve("reports/more.tap"), "1..2\nok 1 - a\n");

        Output imported = verbale("import", "reports", "--output", "target/verbale/imported");

        assertThat(imported.code()).isZero();
        assertThat(imported.out())
                .startsWith(
                        "1 of 3 tests did not pass: 1 errored, for one reason. The run is incomplete: the journal of import-2")
                .endsWith("\nImported into target/verbale/imported\n");
        assertThat(verbale("gate", "imported").out()).contains("1 journal has no end: what came after is not known.");
        assertThat(imported.err()).contains("'more' planned 2 tests and has 1");
        assertThat(verbale("failures", "imported").out()).contains("the hinge is broken");
        assertThat(verbale("import", "reports", "--output", "target/verbale/imported")
                        .code())
                .isEqualTo(4);
        assertThat(verbale("import", "nowhere", "--output", "x").code()).isEqualTo(3);
    }

    @Test
    void tests_are_run_again_by_a_command_that_a_shell_passes_whole() throws Exception {
        assertThat(verbale("rerun").out())
                .isEqualTo("mvn verify '-Dtest=sample.GateTest#gate' '-Dit.test=sample.GateTest#gate' "
                        + "-Dsurefire.failIfNoSpecifiedTests=false -Dfailsafe.failIfNoSpecifiedTests=false\n");
        assertThat(verbale("rerun", "--for", "gradle").out()).isEqualTo("gradle test --tests sample.GateTest.gate\n");
        assertThat(verbale("rerun", "--for", "testng").out())
                .isEqualTo("java org.testng.TestNG -methods sample.GateTest.gate\n");
        assertThat(verbale("rerun", "--for", "junit").out())
                .contains("--select-class=sample.GateTest '--include-methodname=");
        Output nothing = verbale("rerun", "--flaky");
        assertThat(nothing.code()).isZero();
        assertThat(nothing.out()).as("a script may start what stands there").isEmpty();
        assertThat(nothing.err()).startsWith("verbale: there is nothing to run: no such test is in 2026-11-24");
        assertThat(verbale("rerun", "--reason", "0").err()).contains("no reason of", "Known are [");
        assertThat(verbale("rerun", "--run", "--for", "gradle").code()).isEqualTo(2);
    }

    @Test
    void maven_is_started_with_the_same_words_and_its_exit_code_is_ours() throws Exception {
        Path maven = Files.createDirectories(work.resolve("bin")).resolve("mvn");
        Files.writeString(maven, "#!/bin/sh\nprintf '%s\\n' \"$@\" > words\nexit 7\n");
        assertThat(maven.toFile().setExecutable(true)).isTrue();

        Output started =
                process(Map.of("PATH", work.resolve("bin") + ":" + System.getenv("PATH")), List.of(), "rerun", "--run");

        assertThat(started.code()).isEqualTo(7);
        assertThat(work.resolve("words"))
                .hasContent("verify\n-Dtest=sample.GateTest#gate\n-Dit.test=sample.GateTest#gate\n"
                        + "-Dsurefire.failIfNoSpecifiedTests=false\n-Dfailsafe.failIfNoSpecifiedTests=false");
    }

    @Test
    void wrong_arguments_end_with_2() throws Exception {
        assertThat(process("failure").err())
                .isEqualTo(
                        "verbale: there is no command 'failure'. Did you mean verbale failures?\nHelp: verbale help\n");
        assertThat(verbale("brief", "3f09").err()).contains("Did you mean verbale failures brief?");
        assertThat(verbale("history", "flakey").err())
                .contains("Did you mean verbale history flaky?", "verbale help history");
        assertThat(verbale("page", "--outptu", "x").err())
                .contains("'--outptu' is nothing that verbale page takes", "--output");
        assertThat(verbale("page", "--too", "x").code()).isEqualTo(2);
        assertThat(verbale("export", "--formt", "har").err()).contains("'--formt' is nothing", "Did you mean --format");
        assertThat(verbale("pack").err()).contains("--to=FILE.zip", "Help: verbale help pack");
        assertThat(verbale("help", "pagge").err()).contains("Did you mean verbale page?");
    }

    @Test
    void no_run_ends_with_3_and_says_what_is_there_instead() throws Exception {
        Files.createDirectories(work.resolve("empty"));
        Files.writeString(Files.createDirectories(work.resolve("foreign")).resolve("pom.xml"), "<project/>");
        Files.createDirectories(work.resolve("half/journals"));

        for (String command : List.of("page", "failures", "runs")) {
            for (String position : List.of("nowhere", "empty", "foreign", "half", "foreign/pom.xml")) {
                Output output = verbale(command, position);
                assertThat(output.code()).as(command + " " + position).isEqualTo(3);
                assertThat(output.out()).isEmpty();
                assertThat(output.err())
                        .as(command + " " + position)
                        .startsWith("verbale: " + position + ": ")
                        .hasLineCount(1);
            }
        }
    }

    @Test
    void a_half_written_run_is_shown_and_its_gaps_are_named() throws Exception {
        Path run = root.resolve("2026-11-24_103107_k3f9");
        Files.delete(run.resolve("run.json"));
        Files.writeString(run.resolve("journals/worker-1.jsonl"), "{\"event\":\"no", StandardOpenOption.APPEND);

        Output output = verbale("failures", run.toString());

        assertThat(output.code()).isZero();
        assertThat(output.out()).contains("the gate opens");
        assertThat(output.err())
                .contains("2 problems", "run.json: cannot be read", "torn: the journal ends in the middle of a line");
    }

    @Test
    void a_page_that_cannot_be_written_ends_with_4_and_harms_nothing() throws Exception {
        Files.writeString(Files.createDirectories(work.resolve("site")).resolve("beach.txt"), "sun");

        Output output = process("page", "--output", "site");

        assertThat(output.code()).isEqualTo(4);
        assertThat(output.err())
                .startsWith("verbale: the page was not written to site")
                .contains("would be lost");
        assertThat(work.resolve("site/beach.txt")).hasContent("sun");
        assertThat(verbale("page", "--output", "site/beach.txt").err()).contains("is a file");
    }

    @Test
    void a_page_in_the_place_of_an_earlier_one_leaves_what_is_not_the_pages() throws Exception {
        verbale("page", "--output", "site");
        Path site = work.resolve("site");
        Files.writeString(site.resolve("CNAME"), "tests.orto.example");
        Files.writeString(Files.createDirectories(site.resolve("notes/july")).resolve("beans.txt"), "water them");
        Files.writeString(
                site.resolve("data/files.txt"), Files.readString(site.resolve("data/files.txt")) + "../secret\n");
        Files.writeString(work.resolve("secret"), "kept");

        Output again = verbale("page", "--output", "site");
        Path link = Files.createSymbolicLink(work.resolve("link"), site);
        Output linked = verbale("page", "--output", "link");

        assertThat(again.code()).as(again.err()).isZero();
        assertThat(site.resolve("CNAME")).hasContent("tests.orto.example");
        assertThat(site.resolve("notes/july/beans.txt")).hasContent("water them");
        assertThat(work.resolve("secret")).hasContent("kept");
        assertThat(site.resolve("index.html")).exists();
        assertThat(linked.code()).isEqualTo(4);
        assertThat(linked.err()).contains("is a link");
        assertThat(link).isSymbolicLink();
        try (Stream<Path> left = Files.list(work)) {
            assertThat(left.map(file -> file.getFileName().toString()))
                    .containsExactlyInAnyOrder("link", "secret", "site", "target");
        }
    }

    @Test
    void a_file_in_the_way_of_a_new_page_is_named_and_stays() throws Exception {
        verbale("page", "--output", "site");
        Path list = work.resolve("site/data/files.txt");
        Files.writeString(list, Files.readString(list).replace("index.html\n", ""));
        Files.writeString(work.resolve("site/index.html"), "mine now");

        Output output = verbale("page", "--output", "site");

        assertThat(output.code()).isEqualTo(4);
        assertThat(output.err()).contains("site/index.html", "is not of the page that is there");
        assertThat(work.resolve("site/index.html")).hasContent("mine now");
    }

    @Test
    void an_archive_replaces_only_an_archive() throws Exception {
        Path journal = root.resolve("2026-11-24_103107_k3f9/journals/worker-1.jsonl");
        byte[] before = Files.readAllBytes(journal);
        Path link = Files.createSymbolicLink(work.resolve("link.har"), work.resolve("mine.txt"));

        Output onJournal = verbale(
                "export",
                "--format",
                "har",
                "--output",
                "target/verbale/2026-11-24_103107_k3f9/journals/worker-1.jsonl");
        Output onLink = verbale("export", "--format", "har", "--output", "link.har");
        Output once = verbale("export", "--format", "har", "--output", "a.har");
        Output twice = verbale("export", "--format", "har", "--output", "a.har");

        assertThat(onJournal.code()).isEqualTo(4);
        assertThat(onJournal.err()).contains("is no archive that Verbale wrote");
        assertThat(Files.readAllBytes(journal)).isEqualTo(before);
        assertThat(onLink.code()).isEqualTo(4);
        assertThat(link).isSymbolicLink();
        assertThat(List.of(once.code(), twice.code())).containsOnly(0);
        Path plain = Files.createFile(work.resolve("plain"));
        assertThat(Files.getPosixFilePermissions(work.resolve("a.har")))
                .as("as any file that is made here")
                .isEqualTo(Files.getPosixFilePermissions(plain));
    }

    @Test
    void a_run_without_exchanges_makes_no_archive_and_says_so() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("quiet").withSummaryLine(false));
        recorder.endTest(
                recorder.startTest(recorder.run(), TestDescriptor.of("k", "n").build()), TestEnd.passed());

        Output output = verbale("export", "--format", "har", "quiet");

        assertThat(output.code()).isZero();
        assertThat(output.out()).startsWith("No HTTP exchange was recorded in quiet. Nothing was written.");
        assertThat(root.resolve("quiet/exchanges.har")).doesNotExist();
    }

    @Test
    void many_failures_are_told_by_cause_and_all_of_them_when_asked() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("storm").withSummaryLine(false));
        for (int i = 0; i < 60; i++) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("k" + i, "bed " + i)
                            .className("sample.BedTest")
                            .methodName("bed")
                            .build());
            var failure = i % 3 == 0
                    ? new IllegalStateException("hail on bed " + i)
                    : new AssertionError("m".repeat(3_000_000 / 60) + "\nwind");
            recorder.endTest(test, TestEnd.threw(failure));
        }
        recorder.startStep("lock the shed").failed(new IllegalStateException("no key"));

        Output some = verbale("failures", "storm");
        Output all = verbale("failures", "--all", "storm");

        assertThat(some.out()).hasSizeLessThan(6_000);
        assertThat(some.out())
                .contains(
                        "Failures  60 failures, 2 reasons", "hail on bed 0", "  and 39 more", "verbale failures --all")
                .containsSubsequence("Outside the tests  1", "lock the shed: no key");
        assertThat(some.out().lines()).allMatch(line -> line.length() <= 80);
        assertThat(all.out().lines().filter(line -> line.contains("hail on bed")))
                .hasSize(20);
    }

    @Test
    void one_odd_run_hides_no_other_and_costs_no_stack_trace() throws Exception {
        Path odd = Files.createDirectories(root.resolve("odd/journals"));
        Files.writeString(
                root.resolve("odd/run.json"),
                "{\"format\":1,\"name\":\"odd\",\"started\":\"+999999999-12-31T23:59:59Z\",\"facts\":{}}");
        var lines = new StringBuilder(
                "{\"event\":\"journal-opened\",\"at\":0,\"format\":1,\"worker\":\"w\",\"wall\":\"+999999999-12-31T23:59:59Z\",\"pid\":1,\"verbale\":\"1\"}\n");
        lines.append(
                "{\"event\":\"test-started\",\"at\":9223372036854775807,\"id\":1,\"key\":\"k\",\"name\":\"n\",\"thread\":\"t\"}\n");
        lines.append(
                "{\"event\":\"test-started\",\"at\":1,\"id\":1,\"key\":\"k\\uD800\",\"name\":\"n\",\"thread\":\"t\"}\n");
        for (int i = 2; i < 3_002; i++)
            lines.append("{\"event\":\"step-started\",\"at\":%d,\"id\":%d,\"in\":%d,\"name\":\"s\"}\n"
                    .formatted(i, i, i - 1));
        Files.writeString(odd.resolve("worker-1.jsonl"), lines);

        Output runs = verbale("runs");
        Output page = verbale("page", "odd");
        Output failures = verbale("failures", "odd");

        assertThat(runs.out()).contains("2026-11-24_103107_k3f9", "odd");
        for (Output output : List.of(runs, page, failures)) {
            assertThat(output.code()).as(output.err()).isZero();
            assertThat(output.err()).doesNotContain("\tat ");
        }
    }

    @Test
    void a_projects_folder_stands_for_the_newest_run_in_it() throws Exception {
        Output here = verbale("failures", ".");
        Output help = verbale("help", "failures");

        assertThat(here.code()).isZero();
        assertThat(here.out()).contains("the gate opens");
        assertThat(help.code()).isZero();
        assertThat(help.out()).contains("--all");
    }

    @Test
    void another_root_comes_from_the_environment() throws Exception {
        Files.move(root, work.resolve("elsewhere"));

        assertThat(process(Map.of("VERBALE_ROOT", "elsewhere"), List.of(), "runs")
                        .out())
                .contains("2026-11-24_103107_k3f9");
    }

    private void record(String name) throws IOException {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withSummaryLine(false));
        Scope good = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("roses", "roses grow")
                        .className("sample.GateTest")
                        .methodName("roses")
                        .build());
        recorder.exchange("GET", "https://orto.example/roses").status(200).ended();
        recorder.endTest(good, TestEnd.passed());
        Scope bad = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("gate", "the gate opens")
                        .className("sample.GateTest")
                        .methodName("gate")
                        .build());
        recorder.exchange("GET", "https://orto.example/gate").status(500).ended();
        recorder.attach("hinge", "rust".getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
        var failure = new IllegalStateException("the hinge is broken");
        failure.setStackTrace(
                new StackTraceElement[] {new StackTraceElement("sample.GateTest", "gate", "CommandLineTest.java", 7)});
        recorder.endTest(bad, TestEnd.threw(failure));
    }

    /** As a JVM does it that ends in order; this one goes on. */
    private void close(String name) throws IOException {
        Files.writeString(
                root.resolve(name).resolve("journals/worker-1.jsonl"),
                "{\"event\":\"journal-ended\",\"at\":9000,\"missing\":0}\n",
                StandardOpenOption.APPEND);
    }

    private static Output verbale(String... arguments) throws Exception {
        return jvm.run(arguments);
    }

    private static Output process(String... arguments) throws Exception {
        return process(Map.of(), List.of(), arguments);
    }

    private static Output process(Map<String, String> environment, List<String> options, String... arguments)
            throws Exception {
        List<String> command = Jvm.command(options, Jvm.classPath(), Main.class, arguments);
        Path err = Files.createTempFile("err", ".txt");
        var process = new ProcessBuilder(command).directory(work.toFile()).redirectError(err.toFile());
        process.environment().remove("VERBALE_ROOT");
        process.environment().putAll(environment);
        Process running = process.start();
        String out = new String(running.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        int code = running.waitFor();
        String complained = Files.readString(err);
        Files.delete(err);
        return new Output(code, out, complained);
    }
}
