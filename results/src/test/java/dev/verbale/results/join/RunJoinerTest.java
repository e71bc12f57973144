package dev.verbale.results.join;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.FactStated;
import dev.verbale.event.JournalEnded;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.RunReader;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.results.Worker;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Several runs become one. */
class RunJoinerTest {

    @TempDir
    Path folder;

    private Path one;
    private Path two;
    private Path three;

    @BeforeEach
    void record() throws Exception {
        one = shard("ci-1/tonight", "alpha", 0, "rota fails", "shed fails", "seeds");
        two = shard("ci-2/tonight", "beta", 60, "shed", "compost");
        three = shard("ci-3/other", "beta", 120, "plots fails");
    }

    /** A run with a file of its own for each test, whose names are those of the other shards' files. */
    private Path shard(String name, String host, long seconds, String... tests) throws Exception {
        Path path = folder.resolve(name);
        SampleRun run = SampleRun.in(path.getParent(), path.getFileName().toString());
        run.worker("worker-1", SampleRun.WALL.plusSeconds(seconds));
        run.write(new FactStated(1, "host", host), new FactStated(1, "suite", "garden"));
        for (String test : tests) {
            boolean fails = test.endsWith(" fails");
            run.test(
                    test.replace(" fails", ""),
                    fails ? Outcome.FAILED : Outcome.PASSED,
                    fails ? SampleRun.failure("E", test) : null);
        }
        Files.createDirectories(path.resolve("run"));
        Files.writeString(path.resolve("run/01-shot.txt"), "of " + name);
        var stored = new AttachmentStored.StoredFile("run/01-shot.txt", "text/plain", 9, null);
        run.write(AttachmentStored.of(900_000, 0, "shot", "attachment", stored).build());
        run.write(new JournalEnded(0, 0, Map.of(), 0));
        return path;
    }

    @Test
    void a_shard_that_the_others_promise_is_missed_and_a_selection_beside_a_whole_is_none() throws Exception {
        Path first = part("first", FactStated.SHARD, "1 of 4");
        Path third = part("third", FactStated.SHARD, "3 of 4");
        Path all = folder.resolve("all");
        RunJoiner.join(List.of(first, third), all);
        Run run = RunReader.read(all);

        assertThat(run.incomplete().absentShards()).containsExactly("2 of 4", "4 of 4");
        assertThat(Headline.of(run))
                .endsWith("The run is incomplete: shards 2 of 4, 4 of 4 are not there.")
                .doesNotContain("Only a part");
        assertThat(Headline.of(RunReader.read(first))).endsWith("Only a part of the suite was run: shard 1 of 4.");
        RunJoiner.join(
                List.of(part("again", FactStated.SHARD, "2 of 4"), part("last", FactStated.SHARD, "4 of 4")), all);
        assertThat(RunReader.read(all).incomplete().isNothing()).isTrue();

        Path some = part("some", FactStated.SELECTION, "-Dtest=RotaTest");
        RunJoiner.join(List.of(one, some), folder.resolve("whole"));
        assertThat(RunPart.of(RunReader.read(folder.resolve("whole")).facts())).isEmpty();
        RunJoiner.join(List.of(some), folder.resolve("selected"));
        assertThat(RunPart.of(RunReader.read(folder.resolve("selected")).facts()))
                .isEqualTo("-Dtest=RotaTest");
    }

    /** What each machine was given is a selection; together they are all, unless all were given the same. */
    @Test
    void shards_that_were_told_their_tests_are_the_whole_together() throws Exception {
        Path first = part("first", FactStated.SHARD, "1 of 2", FactStated.SELECTION, "-Dtest=RotaTest");
        Path second = part("second", FactStated.SHARD, "2 of 2", FactStated.SELECTION, "-Dtest=ShedTest");
        RunJoiner.join(List.of(first, second), folder.resolve("planned"));
        assertThat(RunPart.of(RunReader.read(folder.resolve("planned")).facts()))
                .isEmpty();
        RunJoiner.join(List.of(first), folder.resolve("half"));
        assertThat(RunReader.read(folder.resolve("half")).incomplete().absentShards())
                .containsExactly("2 of 2");

        Path third = part("third", FactStated.SHARD, "1 of 2", FactStated.SELECTION, "changed since main");
        Path fourth = part("fourth", FactStated.SHARD, "2 of 2", FactStated.SELECTION, "changed since main");
        RunJoiner.join(List.of(third, fourth), folder.resolve("changed"));
        assertThat(RunPart.of(RunReader.read(folder.resolve("changed")).facts()))
                .isEqualTo("changed since main");
    }

    private Path part(String name, String... facts) throws Exception {
        SampleRun run = SampleRun.in(Files.createDirectories(folder.resolve("parts")), name);
        for (int i = 0; i < facts.length; i += 2) run.write(new FactStated(1, facts[i], facts[i + 1]));
        run.test("of " + name, Outcome.PASSED, null).read();
        return run.path();
    }

    @Test
    void shards_become_one_run_and_the_same_test_in_two_of_them_is_one_test() throws Exception {
        RunJoiner.Joined joined = RunJoiner.join(List.of(one, two, three), folder.resolve("all"));
        Run run = RunReader.read(folder.resolve("all"));

        assertThat(joined.clashes()).isEmpty();
        assertThat(joined.shards()).hasSize(3).allMatch(name -> name.matches("(tonight|other)_[0-9a-f]{8}"));
        assertThat(run.counts().all()).isEqualTo(5);
        assertThat(run.counts().needingAttention()).isEqualTo(2);
        assertThat(run.flaky()).extracting(TestResult::name).containsExactly("shed");
        assertThat(run.workers())
                .extracting(Worker::name)
                .doesNotHaveDuplicates()
                .allMatch(name -> name.endsWith("/worker-1"));
        assertThat(run.started()).isEqualTo(SampleRun.WALL);
        assertThat(run.duration()).isGreaterThan(Duration.ofSeconds(120));
        assertThat(run.facts())
                .containsEntry("joined", "3 runs")
                .containsEntry("suite", "garden")
                .hasEntrySatisfying(
                        "host", hosts -> assertThat(hosts.split(", ")).containsExactlyInAnyOrder("alpha", "beta"));
        assertThat(run.problems())
                .extracting(Problem::sentence)
                .containsExactly(
                        "shards: 1 test ran on several machines: which attempt came last is told by the machines' own clocks,"
                                + " which nobody compared");
        assertThat(contents(run)).containsExactlyInAnyOrder("of ci-1/tonight", "of ci-2/tonight", "of ci-3/other");
    }

    @Test
    void in_whatever_order_and_however_often_it_comes_to_the_same() throws Exception {
        RunJoiner.join(List.of(one, two, three), folder.resolve("expected"));
        Map<String, String> expected = files(folder.resolve("expected"));
        Random random = new Random(4);
        for (int i = 0; i < 20; i++) {
            List<Path> some = new ArrayList<>(List.of(one, two, three, two));
            Collections.shuffle(some, random);
            Path again = folder.resolve("again" + i);
            RunJoiner.join(some.subList(0, 2), folder.resolve("part" + i));
            RunJoiner.join(List.of(folder.resolve("part" + i)), again);
            for (Path later : some) RunJoiner.join(List.of(later), again);

            assertThat(files(again)).isEqualTo(withName(expected, "again" + i));
        }
    }

    private static Map<String, String> withName(Map<String, String> files, String name) {
        Map<String, String> named = new TreeMap<>(files);
        named.computeIfPresent("run.json", (file, json) -> json.replace("\"expected\"", "\"" + name + "\""));
        return named;
    }

    @Test
    void a_journal_that_grew_replaces_its_beginning_and_nothing_else_is_overwritten() throws Exception {
        Path all = folder.resolve("all");
        Path journal = one.resolve("journals/worker-1.jsonl");
        String whole = Files.readString(journal);
        Files.writeString(journal, whole.substring(0, whole.length() / 2));
        RunJoiner.join(List.of(one), all);
        assertThat(RunReader.read(all).tests().size()).isLessThan(3);

        Files.writeString(journal, whole);
        assertThat(RunJoiner.join(List.of(one), all).clashes()).isEmpty();
        assertThat(RunReader.read(all).tests()).hasSize(3);

        Files.writeString(journal, whole.substring(0, whole.length() / 2));
        RunJoiner.join(List.of(one), all);
        assertThat(RunReader.read(all).tests())
                .as("an older copy changes nothing")
                .hasSize(3);

        Files.writeString(one.resolve("run/01-shot.txt"), "changed by hand");
        assertThat(RunJoiner.join(List.of(one), all).clashes())
                .singleElement()
                .asString()
                .matches("shards/tonight_[0-9a-f]{8}/run/01-shot.txt");
        assertThat(contents(RunReader.read(all))).containsExactly("of ci-1/tonight");
    }

    @Test
    void what_is_no_run_and_what_is_something_else_is_refused_and_left_alone() throws Exception {
        Path other = Files.createDirectories(folder.resolve("documents"));
        Files.writeString(other.resolve("letter.txt"), "dear Ada");

        assertThatThrownBy(() -> RunJoiner.join(List.of(one), other))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContaining("this folder holds something else");
        assertThatThrownBy(() -> RunJoiner.join(List.of(one), one)).isInstanceOf(ResultsFormatException.class);
        assertThatThrownBy(() -> RunJoiner.join(List.of(one, other), folder.resolve("all")))
                .hasMessageContaining("there is no run in this folder");
        assertThat(files(other)).containsOnlyKeys("letter.txt");
        assertThat(folder.resolve("all")).doesNotExist();
        Path joined = folder.resolve("joined");
        RunJoiner.join(List.of(one), joined);
        assertThatThrownBy(() -> RunJoiner.join(List.of(joined), joined)).hasMessageContaining("into itself");
    }

    @Test
    void links_and_pages_are_not_taken_along() throws Exception {
        Files.createDirectories(one.resolve("page"));
        Files.writeString(one.resolve("page/index.html"), "a page");
        Path secret = Files.writeString(folder.resolve("secret.txt"), "hunter2");
        Files.createSymbolicLink(one.resolve("run/link.txt"), secret);
        Files.createSymbolicLink(one.resolve("elsewhere"), folder);

        RunJoiner.join(List.of(one), folder.resolve("all"));

        assertThat(files(folder.resolve("all")).keySet())
                .noneMatch(file -> file.contains("page") || file.contains("link") || file.contains("elsewhere"));
    }

    private static List<String> contents(Run run) throws IOException {
        List<String> contents = new ArrayList<>();
        for (Entry entry : run.entries())
            if (entry instanceof Entry.AttachmentEntry attachment) contents.add(Files.readString(attachment.file()));
        return contents;
    }

    private static Map<String, String> files(Path root) throws IOException {
        Map<String, String> files = new TreeMap<>();
        try (var all = Files.walk(root)) {
            for (Path file : all.filter(Files::isRegularFile).toList())
                files.put(root.relativize(file).toString(), Files.readString(file));
        }
        return files;
    }
}
