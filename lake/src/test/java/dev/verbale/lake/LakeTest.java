package dev.verbale.lake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.history.History;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.query.HistoryTables;
import dev.verbale.query.QueryException;
import dev.verbale.query.TableReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is in a lake answers as the history does that it came from, whatever happened on the way. */
class LakeTest {

    static final List<String> COUNTS = List.of(
            "select count(*), sum(duration_ms), count(distinct test) from tests",
            "select run, started, duration_ms, branch, commit_id, complete, part, made_up, tests, needing_attention from runs order by run",
            "select reason, title, runs, tests, first_seen, last_seen from reasons order by reason",
            "select run, test, module, class_name, method_name, tags, owner, outcome, needs_attention, duration_ms, attempts, flaky, reason, label"
                    + " from tests order by run, test");

    @TempDir
    Path root;

    private Lake lake() {
        return new Lake(root.resolve("lake"));
    }

    private static List<LakeRun> in(List<RunDigest> digests) {
        return digests.stream().map(LakeRun::of).toList();
    }

    private static List<String> questions() throws IOException {
        List<String> all = new ArrayList<>(COUNTS);
        for (String name : Questions.names()) all.add(Questions.read(name));
        return all;
    }

    private void assertAnswersAs(List<RunDigest> digests) throws Exception {
        try (HistoryTables history = HistoryTables.of(History.of(digests));
                LakeTables tables = LakeTables.of(lake(), "orto")) {
            for (String question : questions())
                assertThat(Answer.of(tables.reader(), question))
                        .as(question)
                        .isEqualTo(Answer.of(history.reader(), question));
        }
    }

    @Test
    void each_question_is_answered_as_by_the_history() throws Exception {
        List<RunDigest> digests = new MadeUpRuns(1, 60).runs(46);
        Lake.Added added = lake().add("orto", in(digests));

        assertThat(added.runs()).isEqualTo(46);
        assertAnswersAs(digests);
        try (LakeTables tables = LakeTables.of(lake(), null)) {
            for (String name : Questions.names())
                assertThat(Answer.of(tables.reader(), Questions.read(name)))
                        .as(name)
                        .isNotEmpty();
            assertThat(
                            Answer.of(
                                    tables.reader(),
                                    "select name, count(*), sum(duration_ms) from steps where test like '%grows0()' group by name order by name"))
                    .containsExactly("Dig | 46.000 | 1380.000", "Sow \uD83C\uDF31 | 46.000 | 1840.000");
            assertThat(Answer.of(
                            tables.reader(),
                            "select distinct project, day, facts['browser'] from lake.runs order by day limit 1"))
                    .containsExactly("orto | 2026-11-01 | O'Brien's");
        }
    }

    /** In any order, in any portions, some twice, by several at once: it comes to the same, and in few files. */
    @Test
    void whatever_way_runs_come_in_they_come_to_the_same() throws Exception {
        List<RunDigest> digests = new MadeUpRuns(2, 20).runs(30);
        List<RunDigest> mixed = new ArrayList<>(digests);
        mixed.addAll(digests.subList(0, 10));
        Collections.shuffle(mixed, new Random(2));
        ExecutorService writers = Executors.newFixedThreadPool(3);
        List<Future<Lake.Added>> all = new ArrayList<>();
        for (RunDigest one : mixed) all.add(writers.submit(() -> lake().add("orto", List.of(LakeRun.of(one)))));
        int added = 0;
        int present = 0;
        for (Future<Lake.Added> one : all) {
            added += one.get().runs();
            present += one.get().present();
        }
        writers.shutdown();

        assertThat(added).isEqualTo(30);
        assertThat(present).isEqualTo(10);
        assertAnswersAs(digests);
    }

    @Test
    void many_small_files_of_a_day_become_one_and_what_was_there_goes() throws Exception {
        List<RunDigest> day = new ArrayList<>();
        for (int i = 0; i < 20; i++) day.add(at(new MadeUpRuns(i, 10).run(0), "night-" + i));
        for (RunDigest one : day) lake().add("orto", List.of(LakeRun.of(one)));

        Path attempts = lake().path().resolve("attempts/project=orto/day=2026-11-01");
        assertThat(names(attempts))
                .hasSizeLessThanOrEqualTo(Lake.LARGEST_COUNT)
                .allMatch(name -> name.endsWith(".parquet"));
        try (LakeTables tables = LakeTables.of(lake(), null)) {
            assertThat(Answer.of(tables.reader(), "select count(*), count(distinct run) from tests"))
                    .containsExactly("200.000 | 20.000");
        }
    }

    private static RunDigest at(RunDigest run, String name) {
        return new RunDigest(
                name,
                run.started(),
                run.duration(),
                run.facts(),
                run.isComplete(),
                run.isMadeUp(),
                run.tests(),
                run.reasons());
    }

    private static List<String> names(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    void a_run_of_which_more_is_known_by_now_takes_the_place_of_what_was_there() throws Exception {
        RunDigest whole = new MadeUpRuns(3, 30).run(4);
        var half = new RunDigest(
                whole.run(),
                whole.started(),
                whole.duration(),
                whole.facts(),
                false,
                true,
                whole.tests().subList(0, 11),
                whole.reasons());
        RunDigest other = at(new MadeUpRuns(4, 30).run(3), "other");
        lake().add("orto", List.of(LakeRun.of(half)));
        lake().add("orto", List.of(LakeRun.of(other)));

        Lake.Added fuller = lake().add("orto", List.of(LakeRun.of(whole)));
        Lake.Added again = lake().add("orto", List.of(LakeRun.of(half)));

        assertThat(fuller.runs()).isEqualTo(1);
        assertThat(again).isEqualTo(new Lake.Added(0, 1, 0, 0));
        assertAnswersAs(List.of(whole, other));
    }

    /** A writer may be killed between any two of its steps: what counts is what the manifest says, before and afterwards. */
    @Test
    void what_a_killed_writer_left_is_finished_or_counts_for_nothing() throws Exception {
        List<RunDigest> digests = new MadeUpRuns(5, 15).runs(2);
        lake().add("orto", List.of(LakeRun.of(digests.get(0))));
        Path folder = lake().path().resolve("attempts/project=orto/day=2026-11-01");
        Path there = folder.resolve(names(folder).get(0));
        Path fresh = folder.resolve("_" + there.getFileName() + ".new");
        Path left = folder.resolve("_0123456789abcdef01234567.parquet.new");
        Path orphan = folder.resolve("0123456789abcdef01234567.parquet");
        Path foreign = folder.resolve("somebodys.txt");
        Files.move(there, fresh); // killed when the manifest was there and the file had no name yet
        Files.writeString(left, "half of a file"); // killed while one was written
        Files.copy(fresh, orphan); // killed before what was replaced was deleted
        Files.writeString(foreign, "not ours");

        assertAnswersAs(digests.subList(0, 1));
        lake().add(
                        "orto",
                        List.of(
                                LakeRun.of(at(digests.get(1), digests.get(1).run())),
                                LakeRun.of(at(digests.get(0), "third"))));

        assertThat(fresh).doesNotExist();
        assertThat(left).doesNotExist();
        assertThat(orphan).doesNotExist();
        assertThat(there).exists();
        assertThat(foreign).exists();
    }

    @Test
    void what_is_missing_or_odd_is_said_and_nothing_is_answered_without_it() throws Exception {
        lake().add("orto", in(new MadeUpRuns(6, 15).runs(3)));
        Path folder = lake().path().resolve("attempts/project=orto/day=2026-11-02");
        Path file = folder.resolve(names(folder).get(0));
        byte[] bytes = Files.readAllBytes(file);
        Path manifest = lake().path().resolve("manifest/project=orto/day=2026-11-02.json");
        String list = Files.readString(manifest);

        Files.delete(file);
        assertThatThrownBy(() -> LakeTables.of(lake(), null))
                .isInstanceOf(LakeException.class)
                .hasMessageContaining(file.getFileName().toString())
                .hasMessageContaining("it is not there");
        Files.write(file, new byte[] {1, 2, 3});
        assertThatThrownBy(() -> {
                    try (LakeTables tables = LakeTables.of(lake(), null)) {
                        Answer.of(tables.reader(), "select count(*) from lake.attempts where duration_ms > 3");
                    }
                })
                .hasMessageContaining(file.getFileName().toString());
        Files.write(file, bytes);
        for (String broken :
                List.of("", "{", "[]", "{\"verbale-lake\":1,\"runs\":[{\"run_id\":\"x\"}]}", "{\"verbale-lake\":1")) {
            Files.writeString(manifest, broken);
            assertThatThrownBy(() -> LakeTables.of(lake(), null))
                    .as(broken)
                    .isInstanceOf(LakeException.class)
                    .hasMessageContaining("day=2026-11-02.json");
        }
        Files.writeString(manifest, list.replace("\"verbale-lake\":1", "\"verbale-lake\":2"));
        assertThatThrownBy(() -> LakeTables.of(lake(), null)).hasMessageContaining("a newer Verbale wrote it");
        Files.writeString(manifest, list);
        assertThat(LakeTables.of(lake(), null)).isNotNull();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "copy (select 1) to 'LAKE/x.parquet'",
                "copy (select 1) to '/tmp/verbale-lake-x'",
                "select * from read_csv('/etc/passwd')",
                "select * from read_text('/etc/hostname')",
                "attach '/tmp/verbale-lake.db'",
                "drop view tests",
                "create table x as select 1",
                "delete from tests",
                "set memory_limit = '10GB'",
                "install httpfs",
                "pragma database_list",
                "select 1; drop view tests",
                "export database 'LAKE'",
                "call pragma_version()",
                "select",
                "nonsense",
            })
    void who_asks_can_do_nothing_else(String sql) throws Exception {
        lake().add("orto", in(new MadeUpRuns(7, 5).runs(1)));
        try (LakeTables tables = LakeTables.of(lake(), null)) {
            TableReader reader = tables.reader();
            assertThatThrownBy(() ->
                            Answer.of(reader, sql.replace("LAKE", lake().path().toString())))
                    .isInstanceOf(QueryException.class);
            assertThat(lake().path().resolve("x.parquet")).doesNotExist();
            assertThat(Answer.of(reader, "select count(*) from tests")).containsExactly("5.000");
        }
    }

    @Test
    void a_question_that_takes_too_long_is_broken_off() throws Exception {
        lake().add("orto", in(new MadeUpRuns(8, 5).runs(1)));
        try (LakeTables tables = LakeTables.of(lake(), null)) {
            assertThatThrownBy(() -> Answer.of(
                            tables.reader().within(Duration.ofMillis(300)),
                            "select count(*) from range(10000000) a, range(10000000) b where a.range < b.range"))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("broken off");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "..", "a/b", "a b", "-x", "é", ".hidden", "x=y"})
    void a_project_is_named_as_every_storage_takes_it(String project) {
        assertThatThrownBy(() -> lake().add(project, List.of()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("is no name of a project");
    }

    /** Names are longer than all else of an attempt: they are written again only where they changed. */
    @Test
    void what_is_known_of_a_test_is_not_written_again() throws Exception {
        var runs = new MadeUpRuns(11, 40);
        lake().add("orto", List.of(LakeRun.of(runs.run(0))));
        lake().add("orto", List.of(LakeRun.of(runs.run(1))));
        lake().add("orto", List.of(LakeRun.of(runs.run(12))));

        Path tests = lake().path().resolve("tests/project=orto");
        assertThat(names(tests)).containsExactly("day=2026-11-01", "day=2026-11-07");
        try (LakeTables tables = LakeTables.of(lake(), null)) {
            assertThat(
                            Answer.of(
                                    tables.reader(),
                                    "select day, count(*), count(case when name like '% well' then 1 end) from lake.tests group by day order by day"))
                    .as("three new ones, and three that are called otherwise")
                    .containsExactly("2026-11-01 | 40.000 | 0.000", "2026-11-07 | 6.000 | 3.000");
        }
    }

    @Test
    void several_projects_are_told_apart_and_a_lake_without_anything_has_its_tables() throws Exception {
        try (LakeTables empty = LakeTables.of(lake(), null)) {
            assertThat(Answer.of(empty.reader(), "select count(*) from tests")).containsExactly("0.000");
        }
        List<RunDigest> digests = new MadeUpRuns(9, 12).runs(4);
        lake().add("orto", in(digests));
        lake().add("shed", in(new MadeUpRuns(10, 12).runs(2)));

        assertThat(lake().projects()).containsExactly("orto", "shed");
        assertAnswersAs(digests);
        try (LakeTables all = LakeTables.of(lake(), null)) {
            assertThat(Answer.of(all.reader(), "select project, count(*) from runs group by project order by project"))
                    .containsExactly("orto | 4.000", "shed | 2.000");
        }
    }

    @Test
    void a_failing_writer_says_so(@TempDir Path other) throws Exception {
        Path file = Files.writeString(other.resolve("file"), "x");
        assertThatThrownBy(() -> new Lake(file).add("orto", List.of())).isInstanceOf(IOException.class);
    }
}
