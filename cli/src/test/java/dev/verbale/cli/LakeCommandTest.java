package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.folder.FolderTree;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A lake that is filled and asked by the command line. */
class LakeCommandTest {

    @TempDir
    Path work;

    private StayingJvm jvm;

    @BeforeEach
    void begin() throws Exception {
        jvm = new StayingJvm(work, Map.of("VERBALE_HISTORY", "history"));
    }

    @AfterEach
    void end() throws Exception {
        jvm.close();
    }

    private Output verbale(int code, String... arguments) throws Exception {
        Output output = jvm.run(arguments);
        assertThat(output.code()).as(output.out() + output.err()).isEqualTo(code);
        assertThat(output.err()).doesNotContain("\tat ");
        return output;
    }

    /** The first attempt fails, the second passes; each asks once. */
    private void record(String run) {
        AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(work.resolve("target/verbale"))
                .withRun(run)
                .withSummaryLine(false));
        for (boolean passes : new boolean[] {false, true}) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("sample.BedTest.grows()", "grows")
                            .className("sample.BedTest")
                            .methodName("grows")
                            .build());
            recorder.exchange("GET", "https://orto.example/beds?key=1")
                    .status(passes ? 200 : 503)
                    .ended();
            recorder.endTest(test, passes ? TestEnd.passed() : TestEnd.threw(new AssertionError("dry")));
        }
    }

    @Test
    void what_is_remembered_comes_in_once_and_whole_runs_in_its_place() throws Exception {
        for (String run : new String[] {"monday", "tuesday"}) {
            record(run);
            verbale(0, "history", "add", "target/verbale/" + run);
        }

        assertThat(verbale(0, "history", "export", "--to", "lake", "--project", "orto", "--format", "parquet")
                        .out())
                .startsWith("2 runs of orto came in, 0 were there: ");
        assertThat(verbale(0, "history", "export", "--to", "lake", "--project", "orto")
                        .out())
                .startsWith("0 runs of orto came in, 2 were there: 0 files");
        String question = "select run, attempt, outcome from attempts order by run, attempt";
        assertThat(verbale(0, "runs", "query", "--lake", "lake", "--format", "csv", question)
                        .out())
                .isEqualToIgnoringNewLines("run,attempt,outcome\nmonday,2,passed\ntuesday,2,passed\n");

        assertThat(verbale(0, "history", "export", "--to", "lake", "--project", "orto", "target/verbale/monday")
                        .out())
                .startsWith("1 run of orto came in, 0 were there: ");
        assertThat(verbale(0, "runs", "query", "--lake", "lake", "--project", "orto", "--format", "csv", question)
                        .out())
                .isEqualToIgnoringNewLines("run,attempt,outcome\nmonday,1,failed\nmonday,2,passed\ntuesday,2,passed\n");
        assertThat(verbale(
                                0,
                                "runs",
                                "query",
                                "--lake",
                                "lake",
                                "--format",
                                "csv",
                                "select test, attempt, url, status from exchanges order by attempt")
                        .out())
                .isEqualToIgnoringNewLines("test,attempt,url,status\n"
                        + "sample.BedTest.grows(),1,https://orto.example/beds,503\n"
                        + "sample.BedTest.grows(),2,https://orto.example/beds,200\n");
        assertThat(verbale(
                                0,
                                "runs",
                                "query",
                                "--lake",
                                "lake",
                                "select attempts, flaky from tests where run = 'monday'")
                        .out())
                .contains("2", "true", "1 row");
        assertThat(verbale(0, "runs", "query", "--lake", "lake", "--tables").out())
                .contains("lake.attempts", "needs_attention", "timestamp with time zone");
    }

    /** A job must not believe that all is in. */
    @Test
    void what_of_the_history_cannot_be_read_is_named_and_is_no_success() throws Exception {
        record("monday");
        verbale(0, "history", "add", "target/verbale/monday");
        Files.writeString(work.resolve("history/tuesday.digest.jsonl.gz"), "torn");

        Output export = verbale(3, "history", "export", "--to", "lake", "--project", "orto");

        assertThat(export.out()).startsWith("1 run of orto came in");
        assertThat(export.err()).contains("tuesday.digest.jsonl.gz");
    }

    @Test
    void what_cannot_be_meant_is_said() throws Exception {
        record("monday");
        assertThat(verbale(3, "history", "export", "--to", "lake", "--project", "orto")
                        .err())
                .contains("no run is remembered there");
        verbale(0, "history", "add", "target/verbale/monday");
        assertThat(verbale(2, "history", "export", "--to", "lake").err()).contains("--project=NAME");
        assertThat(verbale(2, "history", "export", "--to", "lake", "--project", "a/b")
                        .err())
                .contains("'a/b' is no name of a project");
        assertThat(verbale(2, "history", "export", "--to", "ftp://orto.example/lake", "--project", "orto")
                        .err())
                .contains("name a folder, or s3://BUCKET/PREFIX");
        assertThat(verbale(2, "history", "export", "--to", "s3://Not a bucket/lake", "--project", "orto")
                        .err())
                .contains("cannot be the name of a bucket");
        assertThat(verbale(2, "history", "export", "--to", "lake", "--project", "orto", "--format", "csv")
                        .err())
                .contains("--format is parquet");
        assertThat(verbale(3, "runs", "query", "--lake", "lake", "select 1").err())
                .contains("there is no lake", "verbale history export --to lake");
        assertThat(verbale(2, "runs", "query", "--project", "orto", "select 1").err())
                .contains("--project is of a lake");
        verbale(0, "history", "export", "--to", "lake", "--project", "orto");
        assertThat(verbale(2, "runs", "query", "--lake", "lake", "--remembered", "select 1")
                        .err())
                .contains("--lake asks its files");
        assertThat(verbale(2, "runs", "query", "--lake", "lake", "--project", "shed", "select 1")
                        .err())
                .contains("no project 'shed'. It has [orto]");
        Files.writeString(work.resolve("file"), "x");
        assertThat(verbale(4, "history", "export", "--to", "file", "--project", "orto")
                        .err())
                .contains("nothing more came into the lake");
        FolderTree.delete(work.resolve("lake/attempts"));
        assertThat(verbale(3, "runs", "query", "--lake", "lake", "select count(*) from tests")
                        .err())
                .contains("it is not there", "attempts/project=orto");
    }
}
