package dev.verbale.journal;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.event.StepEnded;
import dev.verbale.json.TextFilter;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What thousands of failures share stands once in a journal, and each of them comes back whole. */
class RepeatedTextsTest {

    @TempDir
    Path folder;

    private final List<Event> read = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    @Test
    void stacks_that_differ_in_a_few_lines_take_the_room_of_their_differences() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        List<Event> written = new ArrayList<>();
        for (int i = 1; i <= 2_000; i++) written.add(failed(i, stack(i)));

        write(file, TextFilter.NONE, written);

        long characters = written.stream().mapToLong(one -> trace(one).length()).sum();
        assertThat(Files.size(file)).isLessThan(characters / 6);
        read(file);
        assertThat(remarks).isEmpty();
        assertThat(read).isEqualTo(written);
    }

    @Test
    void whatever_texts_are_like_they_come_back_from_many_threads() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
        List<Event> written = Collections.synchronizedList(new ArrayList<>());
        ExecutorService pool = Executors.newFixedThreadPool(4);
        for (int thread = 0; thread < 4; thread++) {
            var random = new Random(thread);
            pool.submit(() -> {
                for (int i = 0; i < 400; i++) {
                    Event event = failed(i + 1, odd(random));
                    written.add(event);
                    writer.append(event);
                }
                return null;
            });
        }
        pool.shutdown();
        assertThat(pool.awaitTermination(1, TimeUnit.MINUTES)).isTrue();

        read(file);

        assertThat(remarks).isEmpty();
        assertThat(read).containsExactlyInAnyOrderElementsOf(written);
    }

    @Test
    void a_part_whose_line_is_gone_is_named_where_it_is_missed_and_the_rest_is_read() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        write(file, TextFilter.NONE, List.of(failed(1, stack(1)), failed(2, stack(2)), failed(3, stack(3))));
        List<String> lines = Files.readAllLines(file);
        lines.remove(2); // the second failure, which has what the third one means
        Files.write(file, lines);

        read(file);

        assertThat(remarks).singleElement().asString().startsWith("3: has a text of which parts are missing");
        assertThat(trace(read.get(1)))
                .startsWith("java.lang.AssertionError: bed 3 is dry")
                .contains("(the line that has this part is missing)")
                .contains("Bed3Test");
    }

    @Test
    void what_a_full_disk_refused_is_written_again_where_it_is_needed() throws Exception {
        try (var disk = Jimfs.newFileSystem(Configuration.unix().toBuilder()
                .setBlockSize(512)
                .setMaxSize(40_960)
                .build())) {
            Path file = disk.getPath("/worker-1.jsonl");
            JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
            writer.append(failed(1, stack(1)));
            Path ballast = disk.getPath("/ballast");
            fill(ballast);
            boolean refused = false;
            try {
                writer.append(failed(2, stack(2)));
            } catch (IOException full) {
                refused = true;
            }
            Files.delete(ballast);
            writer.append(failed(3, stack(3)));
            writer.append(failed(4, stack(4)));

            read(file);

            assertThat(refused).isTrue();
            assertThat(remarks).allSatisfy(line -> assertThat(line).startsWith("3: not JSON"));
            assertThat(read).containsExactly(failed(1, stack(1)), failed(3, stack(3)), failed(4, stack(4)));
        }
    }

    @Test
    void a_secret_over_several_lines_is_masked_before_a_text_is_taken_apart() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        String secret = "first half\n\tat second half\n";
        TextFilter filter = text -> text.replace(secret, "***\n");
        List<Event> written = new ArrayList<>();
        for (int i = 1; i <= 4; i++) written.add(failed(i, secret + stack(i)));

        write(file, filter, written);

        assertThat(file).content().doesNotContain("second half");
        read(file);
        assertThat(trace(read.get(3))).isEqualTo("***\n" + stack(4));
    }

    @Test
    void a_few_lines_cannot_mean_a_text_of_gigabytes() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        write(file, TextFilter.NONE, List.of());
        String megabyte = "x".repeat(1 << 20);
        var references = new StringBuilder("{\"id\":1,\"text\":\"" + megabyte + "\"}");
        for (int i = 0; i < 10_000; i++) references.append(",{\"id\":1}");
        Files.writeString(
                file,
                Files.readString(file)
                        + "{\"event\":\"step-ended\",\"at\":1,\"id\":1,\"outcome\":\"failed\",\"failure\":{\"type\":\"T\",\"stackPieces\":["
                        + references + "]}}\n{\"event\":\"step-ended\",\"at\":2,\"id\":2,\"outcome\":\"passed\"}\n");

        read(file);

        assertThat(remarks).singleElement().asString().contains("longer than any recorder writes");
        assertThat(read).hasSize(1);
    }

    /** As of a suite whose tear-down fails: most frames are those of the framework. */
    private static String stack(int test) {
        var stack = new StringBuilder("java.lang.AssertionError: bed " + test + " is dry\n");
        for (int i = 0; i < 20; i++)
            stack.append("\tat dev.orto.garden.Pump.call").append(i).append("(Pump.java:7)\n");
        stack.append("\tat dev.orto.Bed").append(test % 300).append("Test.waters(BedTest.java:9)\n");
        for (int i = 0; i < 60; i++)
            stack.append("\tat org.junit.platform.engine.support.hierarchical.Node")
                    .append(i)
                    .append(".run(Node.java)\n");
        stack.append("Caused by: java.io.IOException: pump ").append(test).append(" does not answer\n");
        for (int i = 0; i < 15; i++)
            stack.append("\tat dev.orto.garden.Socket.read").append(i).append("(Socket.java:1)\n");
        return stack.append("\t... 70 more\n").toString();
    }

    /** Lines of few kinds, with and without ends, of any length, with characters of two halves. */
    private static String odd(Random random) {
        var text = new StringBuilder();
        int lines = random.nextInt(60);
        for (int i = 0; i < lines; i++) {
            text.append(random.nextBoolean() ? "\t" : "")
                    .append("\uD83C\uDF31é".repeat(random.nextInt(4) == 0 ? 900 : random.nextInt(9)));
            text.append(random.nextInt(6)).append(random.nextInt(9) == 0 ? "" : "\n");
        }
        return text.toString();
    }

    private static Event failed(int id, String stack) {
        return new StepEnded(
                id,
                id,
                Outcome.FAILED,
                null,
                Failure.of("java.lang.AssertionError", stack).build());
    }

    private static String trace(Event event) {
        Failure failure = ((StepEnded) event).failure();
        return failure == null ? "" : failure.stack();
    }

    private static void fill(Path ballast) throws IOException {
        try (var out = Files.newOutputStream(ballast)) {
            for (int i = 0; i < 1_000; i++) out.write(new byte[64]);
        } catch (IOException full) {
            assertThat(full).isNotNull();
        }
    }

    private static void write(Path file, TextFilter filter, List<Event> events) throws IOException {
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, filter);
        for (Event event : events) writer.append(event);
    }

    /** What follows the first line. */
    private void read(Path file) throws IOException {
        JournalReader.read(file, new JournalReader.Listener() {
            @Override
            public void event(Event event, int line) {
                if (line > 1) read.add(event);
            }

            @Override
            public void unread(int line, String why) {
                remarks.add(line + ": " + why);
            }

            @Override
            public void unknown(int line, String what) {
                remarks.add(line + ": " + what);
            }

            @Override
            public void odd(int line, String what) {
                remarks.add(line + ": " + what);
            }
        });
    }
}
