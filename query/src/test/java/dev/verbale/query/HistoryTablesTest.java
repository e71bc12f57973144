package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is read from the history's files row by row answers as tables do that were filled with it. */
class HistoryTablesTest {

    private static final List<Outcome> OUTCOMES =
            List.of(Outcome.PASSED, Outcome.PASSED, Outcome.PASSED, Outcome.FAILED, Outcome.ERRORED, Outcome.SKIPPED);

    @TempDir
    Path temporary;

    private HistoryFolder folder;

    @BeforeEach
    void remember() throws Exception {
        folder = new HistoryFolder(temporary.resolve("history"));
        var random = new Random(5);
        for (int night = 0; night < 25; night++) folder.add(night(night, random));
    }

    /** Of up to thirty tests, some with what a database or a file could take for something else. */
    private static RunDigest night(int night, Random random) {
        List<TestDigest> tests = new ArrayList<>();
        List<ReasonDigest> reasons = List.of(
                new ReasonDigest("dry", "The bed is dry"), new ReasonDigest("wet", "It's \"wet\"; drop table runs"));
        for (int i = 0; night % 9 != 4 && i < 30; i++) {
            if (random.nextInt(8) == 0) continue;
            Outcome outcome = OUTCOMES.get(random.nextInt(OUTCOMES.size()));
            String key =
                    (i % 3 == 0 ? "[garden/beds] " : "") + "dev.orto.Test" + i / 4 + ".m" + i + "('\u0000 \uD800')";
            tests.add(new TestDigest(
                    key,
                    "Garden › test " + i,
                    outcome,
                    random.nextInt(10_000),
                    1 + random.nextInt(3),
                    outcome == Outcome.PASSED && random.nextInt(5) == 0,
                    outcome.needsAttention() && i % 5 > 0 ? reasons.get(i % 2).id() : null,
                    List.of(),
                    i % 7 == 0
                            ? Origin.UNKNOWN
                            : new Origin(
                                    "dev.orto.Test" + i / 4,
                                    "m" + i,
                                    night > 12 && i % 2 == 0 ? List.of("seeds", "slow") : List.of(),
                                    i % 6 == 1 ? "Ada" : null)));
        }
        return new RunDigest(
                night % 5 == 0 ? "nightly" : String.format("2026-10-%02d_221500_aaaa", night + 1),
                QueryContract.FIRST.plus(Duration.ofDays(night)).plusMillis(night),
                Duration.ofMinutes(2),
                Map.of("branch", night % 3 == 0 ? "main" : "rota", "commit", "c" + night),
                night % 6 != 0,
                false,
                tests,
                reasons,
                night % 4 == 0 ? List.of("dev.orto.Broken") : List.of());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "select * from runs order by started",
                "select * from tests order by run_started, test",
                "select * from reasons order by reason",
                "select count(*) from tests",
                "select count(*) from runs",
                "select run_id, count(*) from tests group by run_id order by 1",
                "select * from tests where run_id = 7 order by test",
                "select * from tests where run_id in (3, 9, 99) order by run_id, test",
                "select * from tests where run_id between 3 and 5 order by run_id, test",
                "select run, test from tests where run = 'nightly' order by run_id, test",
                "select run, test from tests where run > '2026-10-20' order by run_id, test",
                "select run, outcome from tests where test like '%.m5(%' order by run_id",
                "select run_id, outcome, reason from tests where test = (select max(test) from tests) order by run_id",
                "select run_id from tests where test = 'no such test'",
                "select run_id from tests where test is null or run_id is null",
                "select run_id from tests where run_id = null",
                "select outcome, count(*) as n, sum(duration_ms) as ms from tests where needs_attention group by outcome order by 1",
                "select test, count(*) as n from tests where flaky group by test order by 2 desc, 1 fetch first 5 rows only",
                "select distinct class_name, owner, tags, module from tests order by 1, 2, 3, 4",
                "select r.run, t.test from runs r join tests t on t.run_id = r.run_id where r.branch = 'main' and t.owner = 'Ada' order by r.started, t.test",
                "select r.run_id, count(t.test) from runs r left join tests t on t.run_id = r.run_id and t.flaky group by r.run_id order by 1",
                "select a.test, b.outcome from tests a join tests b on b.test = a.test and b.run_id = a.run_id + 1 where a.outcome <> b.outcome order by a.run_id, a.test",
                "select e.title, count(*) from reasons e join tests t on t.reason = e.reason group by e.title order by 1",
                "select test, max(attempts) over (partition by test order by run_id) as so_far from tests order by run_id, test",
                "select run_id from runs r where not exists (select 1 from tests t where t.run_id = r.run_id) order by 1",
                "select percentile_cont(0.5) within group (order by duration_ms) as median from tests",
                "select count(*) filter (where needs_attention) as failing, count(distinct test) as tests from tests",
                "select run, count(*) as n from tests group by run order by 1",
                "select test from tests order by test, run_id fetch first 40 rows only",
                "select min(test) as first, max(test) as last, min(run) as a, max(run_id) as b from tests",
                "select distinct run_id from tests order by run_id desc",
                "select t.test from tests t join (select run_id, max(test) as test from tests group by run_id) m on m.run_id = t.run_id and m.test = t.test order by t.run_id",
                "select count(*) from attempts",
                "select count(*) from failures",
                "select count(*) from steps",
                "select count(*) from exchanges",
                "select count(*) from attachments",
                TableReader.COLUMNS,
            })
    void each_question_has_the_answer_that_filled_tables_give(String sql) throws Exception {
        try (RunTables filled = RunTables.inMemory();
                HistoryTables read = HistoryTables.of(folder.read(problem -> {}))) {
            filled.update(folder, problem -> {});

            String answer = QueryContract.csv(read.reader(), sql);

            assertThat(answer).isEqualTo(QueryContract.csv(filled.reader(), sql));
        }
    }

    @Test
    void a_history_of_nothing_has_tables_without_rows() throws Exception {
        var nothing = new HistoryFolder(temporary.resolve("nothing"));
        try (HistoryTables tables = HistoryTables.of(nothing.read(problem -> {}))) {
            assertThat(QueryContract.csv(tables.reader(), "select count(*) as n from tests"))
                    .isEqualTo("n\n0\n");
        }
    }

    @Test
    void who_asks_can_do_nothing_else() throws Exception {
        Path file = temporary.resolve("written");
        List<String> hostile = new ArrayList<>(List.of(
                "insert into tests (run_id) values (1)",
                "update tests set run = 'x'",
                "delete from tests",
                "delete from runs",
                "truncate table tests",
                "drop table tests",
                "drop table reasons",
                "create index mine on tests (name)",
                "alter table tests add column mine integer",
                "alter table tests rename to mine",
                "create table mine (i integer) engine \"dev.verbale.query.remembered.RememberedTables\""));
        hostile.addAll(OwnMemoryTest.beyond(file));
        try (HistoryTables tables = HistoryTables.of(folder.read(problem -> {}))) {
            String before = QueryContract.csv(tables.reader(), "select * from tests order by run_id, test");

            for (String one : hostile)
                assertThatThrownBy(() -> QueryContract.csv(tables.reader(), one))
                        .as(one)
                        .isInstanceOf(QueryException.class);

            assertThat(QueryContract.csv(tables.reader(), "select * from tests order by run_id, test"))
                    .isEqualTo(before);
        }
        assertThat(file).doesNotExist();
    }

    @Test
    void many_ask_at_once_while_others_remember_and_nothing_is_lost() throws Exception {
        var busy = new HistoryFolder(temporary.resolve("busy"));
        ExecutorService threads = Executors.newFixedThreadPool(4);
        try {
            List<Future<String>> answers = new ArrayList<>();
            for (int i = 0; i < 40; i++) {
                RunDigest digest = QueryContract.night(i % 20, "passed", "failed");
                answers.add(threads.submit(() -> {
                    busy.add(digest);
                    try (HistoryTables tables = HistoryTables.of(busy.read(problem -> {}))) {
                        return QueryContract.csv(
                                tables.reader(),
                                "select count(*) from tests where run = '" + digest.run() + "' and run_id > 0");
                    }
                }));
            }
            for (Future<String> answer : answers) assertThat(answer.get()).endsWith("\n2\n");
        } finally {
            threads.shutdownNow();
        }
        try (HistoryTables tables = HistoryTables.of(busy.read(problem -> {}))) {
            assertThat(QueryContract.csv(tables.reader(), "select count(*) as n, sum(tests) as t from runs"))
                    .isEqualTo("n,t\n20,40\n");
        }
    }
}
