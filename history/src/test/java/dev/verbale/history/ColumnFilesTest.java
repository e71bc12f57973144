package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The kept columns save time and decide nothing: whatever becomes of them, the digests answer. */
class ColumnFilesTest {

    @TempDir
    Path path;

    private HistoryFolder folder;
    private String truth;

    @BeforeEach
    void remember() throws Exception {
        folder = new HistoryFolder(path);
        for (RunDigest digest : digests()) folder.add(digest);
        truth = answers(History.of(digests()));
    }

    private static Nights nights() {
        return new Nights()
                .test("steady", "......")
                .test("half a pair \uD83C, and \uDF31 and \uD83C\uDF31", "..F...")
                .test("broken", "..F.FF")
                .test("skipped", ".ss~.~")
                .test("young", "   .F.")
                .takes("timed", 100, 200, 300, 400, 500, 600)
                .because("broken", "shed");
    }

    /** Each test with where it stands and whose it is, but for the first. */
    private static List<RunDigest> digests() {
        return nights().digests().stream()
                .map(night -> new RunDigest(
                        night.run(),
                        night.started(),
                        night.duration(),
                        night.facts(),
                        night.isComplete(),
                        night.isMadeUp(),
                        night.tests().stream()
                                .map(test -> new RunDigest.TestDigest(
                                        test.key(),
                                        test.name(),
                                        test.outcome(),
                                        test.millis(),
                                        test.attempts(),
                                        test.recovered(),
                                        test.reason(),
                                        test.steps(),
                                        test.key().equals("steady")
                                                ? RunDigest.TestDigest.Origin.UNKNOWN
                                                : new RunDigest.TestDigest.Origin(
                                                        "dev.orto." + test.key(),
                                                        "opens",
                                                        List.of("seeds", test.key()),
                                                        "Ada")))
                                .toList(),
                        night.reasons()))
                .toList();
    }

    /** All that is asked of a history, in words. */
    private static String answers(History history) {
        var all = new StringBuilder();
        for (String key : history.tests()) {
            all.append(history.test(key).orElseThrow()).append(history.durations(key));
            all.append(history.flakiness(key)).append('\n');
        }
        for (RunResults run : history.results()) {
            all.append(run.keys()).append(run.names()).append(run.origins()).append(run.brokenClasses());
            for (int i = 0; i < run.size(); i++)
                all.append(run.outcome(i)).append(run.millis(i)).append(run.reason(i));
        }
        return all.append(history.runs())
                .append(history.reasons())
                .append(history.slower(9))
                .append(history.titleOf("shed"))
                .toString();
    }

    private String read() throws IOException {
        List<Problem> problems = new ArrayList<>();
        String read = answers(folder.read(problems::add));
        assertThat(problems).isEmpty();
        return read;
    }

    private List<Path> kept() throws IOException {
        try (Stream<Path> all = Files.list(path.resolve(".columns"))) {
            return all.sorted().toList();
        }
    }

    @Test
    void what_was_kept_answers_as_the_digests_do() throws Exception {
        assertThat(kept()).hasSize(10); // of six runs, and two of each of the two suites that they had
        assertThat(read()).isEqualTo(truth);
        assertThat(read()).as("times are read again").isEqualTo(truth);
    }

    @Test
    void what_was_damaged_or_deleted_is_made_anew() throws Exception {
        Random random = new Random(11);
        for (int turn = 0; turn < 300; turn++) {
            List<Path> kept = kept();
            Path file = kept.get(random.nextInt(kept.size()));
            byte[] bytes = Files.readAllBytes(file);
            int at = random.nextInt(Math.max(1, bytes.length));
            switch (random.nextInt(4)) {
                case 0 -> Files.delete(file);
                case 1 -> Files.write(file, java.util.Arrays.copyOf(bytes, at));
                case 2 -> Files.write(file, new byte[0]);
                default -> {
                    if (bytes.length == 0) continue;
                    bytes[at] ^= (byte) (1 << random.nextInt(8));
                    Files.write(file, bytes);
                }
            }
            assertThat(read())
                    .as("turn %d, %s at %d", turn, file.getFileName(), at)
                    .isEqualTo(truth);
        }
    }

    @Test
    void a_digest_that_was_replaced_answers_for_itself() throws Exception {
        RunDigest last = digests().get(5);
        var other = new RunDigest(
                last.run(),
                last.started(),
                last.duration(),
                last.facts(),
                true,
                false,
                last.tests().subList(0, 2),
                last.reasons());
        Path elsewhere = path.resolveSibling("elsewhere" + System.nanoTime());
        Files.copy(
                new HistoryFolder(elsewhere).add(other),
                folder.files().get(5),
                java.nio.file.StandardCopyOption.REPLACE_EXISTING);

        assertThat(folder.read(problem -> {}).runs().get(5).tests()).isEqualTo(2);
    }

    @Test
    void a_digest_with_a_problem_says_so_each_time() throws Exception {
        Path torn = folder.files().get(2);
        byte[] bytes = Files.readAllBytes(torn);
        Files.write(torn, java.util.Arrays.copyOf(bytes, bytes.length - 30));

        for (int turn = 0; turn < 2; turn++) {
            List<Problem> problems = new ArrayList<>();
            folder.read(problems::add);
            assertThat(problems).isNotEmpty();
        }
    }

    @Test
    void where_nothing_can_be_kept_the_digests_are_read() throws Exception {
        for (Path file : kept()) Files.delete(file);
        Files.delete(path.resolve(".columns"));
        Files.writeString(path.resolve(".columns"), "a file of somebody's");

        assertThat(read()).isEqualTo(truth);
        assertThat(path.resolve(".columns")).hasContent("a file of somebody's");
    }

    @Test
    void what_was_kept_of_digests_that_are_no_more_goes_with_the_next_run() throws Exception {
        Files.delete(folder.files().get(0));
        Files.writeString(path.resolve(".columns/notes.txt"), "of somebody's");

        folder.add(digests().get(5));

        assertThat(kept()).hasSize(10); // one gone, one of somebody's
        assertThat(path.resolve(".columns/notes.txt")).exists();
    }

    @Test
    void several_that_read_and_add_at_once_lose_nothing() throws Exception {
        Path many = path.resolve("many");
        List<RunDigest> digests = digests();
        try (var threads = new Threads()) {
            List<Future<?>> work = new ArrayList<>();
            for (int i = 0; i < 60; i++) {
                RunDigest digest = digests.get(i % 6);
                work.add(threads.submit(() -> {
                    new HistoryFolder(many).add(digest);
                    new HistoryFolder(many).read(problem -> {});
                    return null;
                }));
            }
            for (Future<?> one : work) one.get();
        }

        assertThat(answers(new HistoryFolder(many).read(problem -> {}))).isEqualTo(truth);
    }

    private static final class Threads implements AutoCloseable {
        private final java.util.concurrent.ExecutorService all = Executors.newFixedThreadPool(4);

        private Future<?> submit(java.util.concurrent.Callable<?> work) {
            return all.submit(work);
        }

        @Override
        public void close() {
            all.shutdownNow();
        }
    }
}
