package dev.verbale.lake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.history.History;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.query.HistoryTables;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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

/** What several machines wrote into one storage answers as the history does, whoever was killed, and whoever was quicker. */
class SharedLakeTest {

    @TempDir
    Path root;

    private final HeldStore store = new HeldStore();

    private SharedLake machine(String name) {
        return new SharedLake(store, root.resolve(name));
    }

    private static Lake.Added add(SharedLake lake, List<RunDigest> runs) throws IOException {
        return lake.add("orto", runs.stream().map(LakeRun::of).iterator());
    }

    private void assertAnswersAs(List<RunDigest> digests, SharedLake lake) throws Exception {
        try (HistoryTables history = HistoryTables.of(History.of(digests));
                LakeTables tables = lake.tables("orto")) {
            for (String question : LakeTest.COUNTS)
                assertThat(Answer.of(tables.reader(), question))
                        .as(question)
                        .isEqualTo(Answer.of(history.reader(), question));
        }
    }

    /** Nothing lies in the storage that no manifest names. */
    private void assertNothingIsLeftOver() throws Exception {
        List<String> named = new ArrayList<>();
        for (String name : store.all().keySet()) if (DayManifest.isName(name)) named.add(name);
        Path copy = root.resolve("checking");
        new SharedLake(store, copy).lacking("orto", List.of());
        for (DayManifest day : DayManifest.all(copy)) named.addAll(day.fileNames());
        assertThat(store.all().keySet()).containsExactlyInAnyOrderElementsOf(named);
    }

    @Test
    void what_two_machines_added_by_turns_is_there_once_and_little_is_brought() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(3, 30).runs(24);
        SharedLake one = machine("one");
        SharedLake other = machine("other");
        for (int i = 0; i < 24; i += 4) {
            assertThat(add(one, runs.subList(i, i + 2)).runs()).isEqualTo(2);
            assertThat(add(other, runs.subList(i, i + 4)).runs()).isEqualTo(2);
        }

        assertAnswersAs(runs, machine("reader"));
        assertNothingIsLeftOver();
        Lake.Added again = add(one, runs);
        assertThat(again).isEqualTo(new Lake.Added(0, 24, 0, 0));
        assertThat(one.lacking("orto", History.of(runs).runs())).isEmpty();
        assertThat(one.projects()).containsExactly("orto");
        one.tables("orto").close();
        store.awayAfter(1);
        one.tables("orto").close();
        assertThat(store.calls).as("only what changed is looked for").isEqualTo(1);
    }

    @Test
    void whoever_is_killed_or_cut_off_at_any_call_leaves_a_whole_lake() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(4, 12).runs(20);
        add(machine("one"), runs.subList(0, 8));
        for (int calls = 0; ; calls++) {
            SharedLake dying = machine("dying");
            store.awayAfter(calls);
            boolean done = true;
            try {
                add(dying, runs.subList(8, Math.min(20, 9 + calls)));
            } catch (IOException away) {
                done = false;
            }
            store.awayAfter(Integer.MAX_VALUE);
            SharedLake reader = machine("reader" + calls % 2);
            int there = 8;
            while (there < 20
                    && reader.lacking(
                                    "orto",
                                    History.of(runs.subList(there, there + 1)).runs())
                            .isEmpty()) there++;
            assertAnswersAs(runs.subList(0, there), reader);
            if (done && there == 20) break;
            assertThat(calls).isLessThan(200);
        }
        assertThat(add(machine("dying"), runs).runs()).isZero();
        assertAnswersAs(runs, machine("dying"));
    }

    @Test
    void machines_that_write_one_day_at_the_same_time_all_come_in() throws Exception {
        List<RunDigest> runs = new ArrayList<>(new MadeUpRuns(5, 10).runs(24));
        Collections.shuffle(runs, new Random(5));
        ExecutorService machines = Executors.newFixedThreadPool(3);
        try {
            List<Future<Integer>> all = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                int number = i;
                SharedLake own = machine("machine" + i);
                all.add(machines.submit(() -> {
                    int came = 0;
                    for (int run = number * 4; run < 24; run += 12)
                        came += add(own, runs.subList(run, run + 4)).runs();
                    return came;
                }));
            }
            int came = 0;
            for (Future<Integer> one : all) came += one.get();
            assertThat(came).isEqualTo(24);
        } finally {
            machines.shutdown();
        }
        assertAnswersAs(runs, machine("reader"));
        assertNothingIsLeftOver();
    }

    @Test
    void who_was_quicker_is_kept_and_the_slower_one_is_added_to_it() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(6, 15).runs(6);
        var raced = new boolean[1];
        store.hook = call -> {
            if (!call.equals("replace") || raced[0]) return;
            raced[0] = true;
            add(machine("quick"), runs.subList(2, 6));
        };

        assertThat(add(machine("slow"), runs.subList(0, 3)).runs()).isEqualTo(3);

        assertThat(raced[0]).isTrue();
        assertAnswersAs(runs, machine("reader"));
    }

    /** What was written here of later days is on its way still. */
    @Test
    void a_day_that_others_wrote_costs_none_of_the_days_behind_it() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(8, 12).runs(8);
        var raced = new boolean[1];
        store.hook = call -> {
            if (!call.equals("replace") || raced[0]) return;
            raced[0] = true;
            add(machine("quick"), runs.subList(2, 3));
        };

        List<RunDigest> others = new ArrayList<>(runs.subList(0, 2));
        others.addAll(runs.subList(3, 8));
        assertThat(add(machine("slow"), others.subList(1, 7)).runs()).isEqualTo(6);

        assertThat(raced[0]).isTrue();
        assertAnswersAs(runs.subList(1, 8), machine("reader"));
        assertThat(machine("slow").lacking("orto", History.of(runs).runs())).hasSize(1);
        assertNothingIsLeftOver();
    }

    @Test
    void a_copy_has_no_more_files_than_its_lake() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(9, 10).runs(2);
        SharedLake reader = machine("reader");
        for (int i = 0; i < 12; i++) {
            RunDigest run = runs.get(1);
            add(
                    machine("writer"),
                    List.of(new RunDigest(
                            run.run() + i,
                            run.started(),
                            run.duration(),
                            run.facts(),
                            true,
                            true,
                            run.tests(),
                            run.reasons())));
            reader.tables("orto").close();
        }
        try (Stream<Path> all = Files.walk(root.resolve("reader"))) {
            assertThat(all.filter(file -> file.toString().endsWith(".parquet")).count())
                    .isEqualTo(store.all().keySet().stream()
                            .filter(name -> name.endsWith(".parquet"))
                            .count());
        }
    }

    @Test
    void a_lake_that_lacks_a_file_or_names_one_elsewhere_is_refused_by_name() throws Exception {
        List<RunDigest> runs = new MadeUpRuns(7, 10).runs(3);
        add(machine("one"), runs);
        String attempts = store.all().keySet().stream()
                .filter(name -> name.startsWith("attempts/"))
                .findFirst()
                .orElseThrow();
        store.lose(attempts);

        assertThatThrownBy(() -> machine("reader").tables("orto"))
                .isInstanceOf(LakeException.class)
                .hasMessageContaining("s3://orto/" + attempts)
                .hasMessageContaining("Bring it back");

        Path odd = Files.writeString(
                root.resolve("odd.json"),
                "{\"verbale-lake\":1,\"runs\":[],\"files\":{\"attempts\":[\"../../../../../stolen.parquet\"]}}");
        store.put("manifest/project=orto/day=2026-01-01.json", odd);
        assertThatThrownBy(() -> machine("reader").tables("orto"))
                .isInstanceOf(LakeException.class)
                .hasMessageContaining("no list of the files");
        try (Stream<Path> all = Files.walk(root)) {
            assertThat(all).noneMatch(file -> file.endsWith("stolen.parquet"));
        }
    }
}
