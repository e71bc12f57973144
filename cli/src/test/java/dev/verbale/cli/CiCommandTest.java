package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.folder.FolderTree;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The end of a job, by a file. */
class CiCommandTest {

    @TempDir
    Path work;

    private StayingJvm jvm;

    @BeforeEach
    void begin() throws Exception {
        jvm = new StayingJvm(work, Map.of("SITE", "site", "SPACED", "a b"));
    }

    @AfterEach
    void end() throws Exception {
        jvm.close();
    }

    private int runs;

    private void record(String root, String test, boolean passes) throws Exception {
        SampleRun.in(work.resolve(root), "2026-11-24_10310" + runs++ + "_k3f9")
                .test(
                        test,
                        passes ? Outcome.PASSED : Outcome.FAILED,
                        passes
                                ? null
                                : SampleRun.failure("java.lang.AssertionError", "no seeds", "sample.SwapTest.swaps"))
                .read(); // ends it
    }

    private Output ci(String file, String... options) throws Exception {
        Files.writeString(work.resolve(CiPlan.DEFAULT), file);
        String[] all = new String[options.length + 1];
        all[0] = "ci";
        System.arraycopy(options, 0, all, 1, options.length);
        return jvm.run(all);
    }

    @Test
    void shards_are_joined_shown_handed_on_and_judged_in_ten_lines() throws Exception {
        record("shard-1/target/verbale", "seeds", true);
        record("shard-2/target/verbale", "swaps", false);

        Output output = ci("""
                gate: yes          # last, wherever it stands
                join: {runs: "shard-*/target/verbale", output: target/verbale/tonight}
                remember: yes
                page: {title: Orto}
                export:
                  - {format: junit, output: target/tests.xml}
                  - {format: markdown, output: target/summary.md}
                pack: {to: target/run.zip, failures-only: yes, without: [video, logs]}
                publish: {to: "${SITE}"}
                mail: no
                """);

        assertThat(output.code()).as(output.out() + output.err()).isEqualTo(5);
        assertThat(output.err()).isEmpty();
        assertThat(output.out().lines().map(line -> line.split(":? ")[0]))
                .containsExactly("join", "tonight", "remember", "page", "export", "export", "pack", "publish", "gate");
        assertThat(output.out())
                .contains("tonight: 1 of 2 tests did not pass", "target/verbale/tonight/page/index.html")
                .contains("The gate is closed.");
        for (String made : new String[] {"target/tests.xml", "target/summary.md", "target/run.zip", "site/index.html"})
            assertThat(work.resolve(made)).isRegularFile();
        assertThat(jvm.run("failures", "target/run.zip").out()).contains("no seeds");
    }

    @Test
    void without_a_file_it_is_the_page_and_the_gate() throws Exception {
        record("target/verbale", "seeds", true);

        Output output = jvm.run("ci");

        assertThat(output.code()).as(output.out()).isZero();
        assertThat(output.out()).contains("\npage      Page: ", "\ngate      The gate is open.");
        FolderTree.delete(work.resolve("target"));
        assertThat(jvm.run("ci").code()).isEqualTo(3);
    }

    @Test
    void what_fails_keeps_nothing_else_from_being_done_and_a_closed_gate_is_what_a_job_ends_with() throws Exception {
        record("target/verbale", "seeds", true);
        Files.writeString(work.resolve("taken.zip"), "somebody's");
        String file = "pack: {to: taken.zip}\nexport: {format: json, output: run.json}\ngate: yes\n";

        Output open = ci(file);
        assertThat(open.code()).isEqualTo(4);
        assertThat(open.out()).contains("it is there already", "The gate is open.");
        assertThat(work.resolve("run.json")).isRegularFile();
        assertThat(work.resolve("taken.zip")).hasContent("somebody's");

        record("target/verbale", "swaps", false);
        assertThat(ci(file + "page: yes\n").code()).isEqualTo(5);
    }

    @Test
    void where_nothing_can_be_joined_nothing_is_said_of_another_run() throws Exception {
        record("target/verbale", "seeds", true);

        Output output = ci("join: {runs: 'shard-*', output: target/verbale/tonight}\npage: yes\ngate: yes\n");

        assertThat(output.code()).isEqualTo(3);
        assertThat(output.out()).startsWith("join      ").contains("shard-*").hasLineCount(1);
    }

    @Test
    void a_dry_run_prints_commands_that_a_shell_takes() throws Exception {
        Output output = ci("run: target/verbale\npublish: {to: \"${SPACED}\", keep: 3}\nremember: yes\n", "--dry-run");

        assertThat(output.out())
                .isEqualTo("verbale history add target/verbale\nverbale publish '--to=a b' --keep=3 target/verbale\n");
        assertThat(work.resolve("a b")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            publsh: yes                        | :1:1: 'publsh' is not known here
            pack: yes                          | Missing required option: '--to=FILE.zip'
            pack: {too: x.zip}                 | :1:8: 'too' is not known here
            page: maybe                        | :1:7: 'page: maybe' says neither yes nor no
            page: {single-file: perhaps}       | 'perhaps' is neither yes nor no
            publish: {to: x, keep: many}       | 'many' is not an int
            publish: {to: "${NOBODY_SET_IT}"}  | the variable NOBODY_SET_IT is not set
            join: [{runs: a}, {runs: b}]       | :1:7: there are two joins
            gate: {page: [}                    | this is no YAML
            mail: no                           | nothing is to be done
            """)
    void what_is_wrong_in_the_file_is_said_with_its_line_before_anything_is_done(String file, String complaint)
            throws Exception {
        record("target/verbale", "seeds", true);

        Output output = ci(file);

        assertThat(output.code()).as(output.out() + output.err()).isEqualTo(2);
        assertThat(output.err())
                .startsWith("verbale: verbale-ci.yaml:1:")
                .contains(complaint)
                .hasLineCount(1);
        assertThat(output.out()).isEmpty();
    }
}
