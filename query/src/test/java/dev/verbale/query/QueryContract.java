package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The same questions with the same answers, whatever database. */
abstract class QueryContract {

    static final Instant FIRST = Instant.parse("2026-10-01T22:15:00Z");
    private static final String HOSTILE = "'; drop table stored_runs; -- \u0000 \uD800 \uD83C\uDF31 \u001B[31m";

    @TempDir
    Path temporary;

    abstract RunTables tables() throws Exception;

    abstract TableReader reader(RunTables tables) throws Exception;

    /** What this database could do beyond answering, were it allowed to. */
    abstract List<String> beyondAsking(Path file);

    static String csv(TableReader reader, String sql) throws Exception {
        var out = new StringWriter();
        AnswerWriting writing = AnswerText.CSV.to(out);
        reader.ask(sql, writing);
        writing.end();
        return out.toString().replace("\r\n", "\n");
    }

    private Run run() throws Exception {
        SampleRun sample = SampleRun.in(temporary, "tonight");
        sample.test("passes", Outcome.PASSED, null);
        sample.test("fails", Outcome.FAILED, SampleRun.failure("dev.orto.Dry", "the bed is dry " + HOSTILE));
        sample.test("flaky", Outcome.ERRORED, SampleRun.failure("E", "cold cache"));
        sample.test("flaky", Outcome.PASSED, null);
        Files.writeString(sample.path().resolve("shot.txt"), "x");
        sample.write(
                TestStarted.of(900_000_000, 900, "k", HOSTILE)
                        .className("sample.Shed")
                        .methodName("opens")
                        .thread("main")
                        .tags(List.of("seeds", "slow"))
                        .build(),
                StepStarted.of(900_100_000, 901, StepKind.ACTION, "outer " + HOSTILE)
                        .in(900)
                        .build(),
                StepStarted.of(900_200_000, 902, StepKind.ACTION, "inner")
                        .in(901)
                        .build(),
                ExchangeMade.of(900_300_000, new ExchangeMade.Request("GET", "http://orto/seeds", List.of(), null))
                        .in(902)
                        .client("a client")
                        .response(new ExchangeMade.Response(503, List.of(), null))
                        .timing(new ExchangeMade.Timing(40_000L, Map.of()))
                        .build(),
                StepEnded.of(900_700_000, 902, Outcome.PASSED).build(),
                AttachmentStored.of(
                                900_800_000,
                                901,
                                "shot",
                                "attachment",
                                new AttachmentStored.StoredFile("shot.txt", "text/plain", 1, null))
                        .build(),
                StepEnded.of(900_900_000, 901, Outcome.PASSED).build(),
                TestEnded.of(901_000_000, 900, Outcome.PASSED).build());
        return sample.read();
    }

    private static String failingTest(Run run) {
        return run.needingAttention().get(0).id();
    }

    @Test
    void a_run_is_asked_by_its_tables() throws Exception {
        try (RunTables tables = tables()) {
            Run run = run();
            tables.add(run, Map.of(failingTest(run), "product"));
            tables.add(run, Map.of());
            TableReader reader = reader(tables);

            assertThat(csv(reader, "select run, tests, needing_attention from runs"))
                    .isEqualTo("run,tests,needing_attention\ntonight,4,1\n");
            assertThat(csv(reader, "select method_name, outcome, attempts, flaky from tests order by method_name"))
                    .isEqualTo("method_name,outcome,attempts,flaky\nfails,failed,1,false\nflaky,passed,2,true\n"
                            + "opens,passed,1,false\npasses,passed,1,false\n");
            assertThat(csv(reader, "select method_name, label from tests where label is not null"))
                    .isEqualTo("method_name,label\nfails,product\n");
            assertThat(csv(reader, "select attempt, outcome, tags from attempts where tags <> ''"))
                    .isEqualTo("attempt,outcome,tags\n1,passed,seeds slow\n");
            assertThat(csv(reader, "select type, attempt from failures order by length(type)"))
                    .isEqualTo("type,attempt\nE,1\ndev.orto.Dry,1\n");
            assertThat(csv(reader, "select step, in_step, depth, duration_ms from steps order by step"))
                    .isEqualTo("step,in_step,depth,duration_ms\n1,,0,800\n2,1,1,500\n");
            assertThat(csv(reader, "select method, url, status, in_step, duration_ms from exchanges"))
                    .isEqualTo("method,url,status,in_step,duration_ms\nGET,http://orto/seeds,503,2,40\n");
            assertThat(csv(reader, "select name, media_type, bytes, file, in_step from attachments"))
                    .isEqualTo("name,media_type,bytes,file,in_step\nshot,text/plain,1,shot.txt,1\n");
            assertThat(csv(reader, "select t.method_name, r.title from tests t join reasons r on r.reason = t.reason"))
                    .startsWith("method_name,title\nfails,");
        }
    }

    @Test
    void texts_that_mean_something_to_a_database_are_texts() throws Exception {
        try (RunTables tables = tables()) {
            tables.add(run(), Map.of());

            String names = csv(reader(tables), "select name from steps where in_step is null");

            assertThat(names)
                    .contains("'; drop table stored_runs; --")
                    .contains("\uD83C\uDF31")
                    .doesNotContain("\u0000");
        }
    }

    static RunDigest night(int night, String... outcomes) {
        List<TestDigest> tests = new ArrayList<>();
        for (int i = 0; i < outcomes.length; i++) {
            boolean failed = outcomes[i].equals("failed");
            tests.add(new TestDigest(
                    "dev.orto.Test" + i,
                    "Garden › test " + i,
                    outcomes[i].equals("failed") ? Outcome.FAILED : Outcome.PASSED,
                    100 + night,
                    1,
                    false,
                    failed ? "dry" : null,
                    List.of()));
        }
        return new RunDigest(
                String.format("2026-10-%02d_221500_aaaa", night + 1),
                FIRST.plus(Duration.ofDays(night)),
                Duration.ofMinutes(2),
                Map.of("branch", "main", "commit", "c" + night),
                true,
                false,
                tests,
                List.of(new ReasonDigest("dry", "The bed is dry")));
    }

    @Test
    void what_is_remembered_is_brought_up_to_date_file_by_file() throws Exception {
        var folder = new HistoryFolder(temporary.resolve("history"));
        List<Problem> problems = new ArrayList<>();
        try (RunTables tables = tables()) {
            Path first = folder.add(night(0, "passed", "failed"));
            folder.add(night(1, "passed", "failed"));
            assertThat(tables.update(folder, problems::add)).isEqualTo(new RunTables.Update(2, 0, 2));
            assertThat(tables.update(folder, problems::add)).isEqualTo(new RunTables.Update(0, 0, 2));

            folder.add(night(2, "failed", "passed", "passed"));
            Files.delete(first);
            Files.writeString(folder.path().resolve("foreign.digest.jsonl.gz"), "no digest");
            assertThat(tables.update(folder, problems::add)).isEqualTo(new RunTables.Update(1, 1, 2));

            TableReader reader = reader(tables);
            assertThat(csv(reader, "select run, test, outcome, duration_ms from tests order by run, test"))
                    .isEqualTo("""
                            run,test,outcome,duration_ms
                            2026-10-02_221500_aaaa,dev.orto.Test0,passed,101
                            2026-10-02_221500_aaaa,dev.orto.Test1,failed,101
                            2026-10-03_221500_aaaa,dev.orto.Test0,failed,102
                            2026-10-03_221500_aaaa,dev.orto.Test1,passed,102
                            2026-10-03_221500_aaaa,dev.orto.Test2,passed,102
                            """);
            assertThat(csv(reader, "select title, runs, tests, first_seen, last_seen from reasons"))
                    .isEqualTo("title,runs,tests,first_seen,last_seen\n"
                            + "The bed is dry,2,2,2026-10-02T22:15:00Z,2026-10-03T22:15:00Z\n");
            assertThat(csv(
                            reader,
                            "select started from runs where branch = 'main' order by started fetch first 1 row only"))
                    .isEqualTo("started\n2026-10-02T22:15:00Z\n");
        }
        assertThat(problems).extracting(Problem::sentence).anyMatch(sentence -> sentence.contains("foreign.digest"));
    }

    @Test
    void who_asks_can_do_nothing_else() throws Exception {
        Path file = temporary.resolve("written");
        List<String> hostile = new ArrayList<>(List.of(
                "insert into stored_outcomes values (99, 'x', true)",
                "update stored_runs set run = 'x'",
                "delete from stored_results",
                "drop view tests",
                "drop table stored_runs",
                "create table mine (i integer)",
                "alter table stored_runs add column mine integer",
                "create view mine as select 1 as one",
                "truncate table stored_results",
                "create role mine",
                "grant all on stored_runs to public",
                "select 1; drop table stored_runs"));
        hostile.addAll(beyondAsking(file));
        try (RunTables tables = tables()) {
            tables.add(run(), Map.of());
            TableReader reader = reader(tables);
            String before = csv(reader, "select * from tests order by test");

            for (String one : hostile)
                assertThatThrownBy(() -> csv(reader, one)).as(one).isInstanceOf(QueryException.class);

            assertThat(csv(reader, "select * from tests order by test")).isEqualTo(before);
            assertThat(csv(reader, "select outcome_id from stored_outcomes where outcome_id = 99"))
                    .isEqualTo("outcome_id\n");
        }
        assertThat(file).doesNotExist();
    }

    static List<String> noQuestions() {
        return List.of(
                "",
                " ",
                "-- nothing",
                "selekt 1",
                "select * from no_such_table",
                "select 1 +",
                "set @x = 1",
                ";",
                "select '");
    }

    @ParameterizedTest
    @MethodSource("noQuestions")
    void what_is_no_question_is_said_in_one_short_text(String sql) throws Exception {
        try (RunTables tables = tables()) {
            TableReader reader = reader(tables);

            assertThatThrownBy(() -> csv(reader, sql))
                    .isInstanceOf(QueryException.class)
                    .message()
                    .isNotBlank()
                    .doesNotContain("; SQL statement:")
                    .hasSizeLessThan(400);
        }
    }

    @Test
    void an_answer_is_taken_as_far_as_it_is_wanted() throws Exception {
        try (RunTables tables = tables()) {
            var out = new StringWriter();
            AnswerWriting table = AnswerText.TABLE.to(out);
            reader(tables)
                    .ask(
                            "with recursive n(i) as (select 1 union all select i + 1 from n where i < 100000) select i from n",
                            table);
            table.end();

            assertThat(out.toString().lines())
                    .hasSize(AnswerWriting.MAX_ROWS + 3)
                    .last()
                    .asString()
                    .contains("first 200 rows");
        }
    }
}
