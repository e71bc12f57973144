package dev.verbale.journal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.verbale.event.ChecksumWritten;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.json.TextFilter;
import dev.verbale.vocabulary.StepKind;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is written comes back, and what cannot come back is named. */
class JournalTest {

    @TempDir
    Path folder;

    private final List<Event> events = new ArrayList<>();
    private final List<String> unread = new ArrayList<>();
    private final List<String> unknown = new ArrayList<>();

    @Test
    void every_kind_of_event_comes_back_as_it_was() throws Exception {
        Path file = written(SampleEvents.all().skip(1).toArray(Event[]::new));

        read(file);

        assertThat(events)
                .containsExactlyElementsOf(SampleEvents.all()
                        .filter(event -> !(event instanceof ChecksumWritten))
                        .toList());
        assertThat(unread)
                .as("a sample that no lines add up to")
                .singleElement()
                .asString()
                .contains("checksum");
        assertThat(SampleEvents.all().<Class<?>>map(Object::getClass).distinct())
                .as("a sample of every kind that is written")
                .containsExactlyInAnyOrderElementsOf(
                        Event.kinds().filter(kind -> kind != UnknownEvent.class).toList());
    }

    @Test
    void a_line_of_megabytes_is_one_line() throws Exception {
        var giant = LogWritten.text(1, 0, "x".repeat(10_000_000), null);

        read(written(giant, LogWritten.text(2, 0, "small", null)));

        assertThat(events).hasSize(3).contains(giant);
    }

    @Test
    void eight_threads_share_a_journal_and_no_line_is_torn() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
        ExecutorService pool = Executors.newFixedThreadPool(8);
        for (int thread = 0; thread < 8; thread++) {
            int number = thread;
            pool.submit(() -> {
                for (int i = 0; i < 2_000; i++) writer.append(LogWritten.text(i, 0, "line", "thread-" + number));
                return null;
            });
        }
        pool.shutdown();
        assertThat(pool.awaitTermination(1, TimeUnit.MINUTES)).isTrue();

        read(file);

        assertThat(unread).isEmpty();
        for (int thread = 0; thread < 8; thread++) {
            String name = "thread-" + thread;
            assertThat(events.stream()
                            .filter(event -> event instanceof LogWritten line && name.equals(line.thread()))
                            .map(Event::at))
                    .as("the lines of one thread, in its order")
                    .containsExactlyElementsOf(
                            IntStream.range(0, 2_000).mapToObj(i -> (long) i).toList());
        }
    }

    @Test
    void an_interrupted_thread_writes_its_line_and_stays_interrupted() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);

        Thread.currentThread().interrupt();
        writer.append(LogWritten.text(1, 0, "while interrupted", null));
        boolean kept = Thread.interrupted();
        writer.append(LogWritten.text(2, 0, "afterwards", null));

        assertThat(kept).isTrue();
        read(file);
        assertThat(events).hasSize(3);
    }

    @Test
    void a_full_disk_costs_a_line_and_never_the_one_after_it() throws Exception {
        try (var disk = Jimfs.newFileSystem(Configuration.unix().toBuilder()
                .setBlockSize(512)
                .setMaxSize(4_096)
                .build())) {
            Path file = disk.getPath("/worker-1.jsonl");
            Path ballast = disk.getPath("/ballast");
            JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
            Files.write(ballast, new byte[2_560]);

            assertThatThrownBy(() -> writer.append(LogWritten.text(1, 0, "x".repeat(3_000), null)))
                    .isInstanceOf(IOException.class);
            Files.delete(ballast);
            writer.append(LogWritten.text(2, 0, "there is room again", null));

            read(file);
            assertThat(events).contains(LogWritten.text(2, 0, "there is room again", null));
            assertThat(unread).allSatisfy(line -> assertThat(line).startsWith("2: not JSON"));
        }
    }

    @Test
    void a_second_writer_is_refused() throws Exception {
        Path file = written();

        assertThatThrownBy(() -> JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE))
                .isInstanceOf(FileAlreadyExistsException.class);
    }

    @Test
    void a_torn_tail_is_named_and_the_rest_is_read() throws Exception {
        Path file = written(LogWritten.text(1, 0, "whole", null), LogWritten.text(2, 0, "torn", null));
        byte[] whole = Files.readAllBytes(file);
        Files.write(file, Arrays.copyOf(whole, whole.length - 9));

        read(file);

        assertThat(events).hasSize(2);
        assertThat(unread).containsExactly("3: torn: the journal ends in the middle of a line");
    }

    @Test
    void what_is_not_understood_is_named_with_its_line() throws Exception {
        Path file = written();
        Files.writeString(file, """
                {"event":"retry","at":"soon"}
                {"event":"log","at":2}
                {"event":"log","at":3,"text":4}
                {"event":"test-ended","at":4,"id":0,"outcome":"passed"}
                {"event":"log","at":5,"text":"a"}{"event":"log"}
                [1]
                \0\0\0
                {"event":"log","at":6,"text":"still read"}
                """, StandardOpenOption.APPEND);

        read(file);

        assertThat(events).containsExactly(SampleEvents.OPENED, LogWritten.text(6, 0, "still read", null));
        assertThat(unread)
                .hasSize(7)
                .startsWith(
                        "2: 'retry' has 'at' that is not a whole number",
                        "3: 'log' has no 'text'",
                        "4: 'log' has 'text' that is not text",
                        "5: 'test-ended' has 'id' that it cannot have: 0 is not from 1 to 2147483647",
                        "6: more than one JSON object in the line",
                        "7: not a JSON object");
        assertThat(unread.get(6)).startsWith("8: not JSON");
    }

    @Test
    void of_a_later_version_nothing_is_lost_that_can_be_kept_and_all_of_it_is_said() throws Exception {
        Path file = written();
        Files.writeString(file, """
                {"event":"wave-started","at":1,"id":7,"in":2,"mood":{"deep":[1,2]}}
                {"event":"log","at":2,"in":7,"text":"inside","mood":"fine"}
                {"event":"step-started","at":3,"id":8,"in":7,"kind":"gherkin","name":"sow"}
                {"event":"step-ended","at":4,"id":8,"outcome":"undecided","failure":{"id":3,"type":"T","stack":"","hint":1}}
                {"event":"about","at":5,"id":8,"links":[{"name":"a","icon":"b"}]}
                {"event":"exchange","at":6,"client":"c","request":{"method":"GET","url":"u","body":{"mediaType":"","size":1,"lang":"de"}}}
                """, StandardOpenOption.APPEND);

        read(file);

        assertThat(unread).isEmpty();
        assertThat(events)
                .contains(
                        new UnknownEvent(
                                1,
                                "wave-started",
                                7,
                                2,
                                "{\"event\":\"wave-started\",\"at\":1,\"id\":7,\"in\":2,\"mood\":{\"deep\":[1,2]}}"),
                        LogWritten.text(2, 7, "inside", null),
                        StepStarted.of(3, 8, new StepKind("gherkin"), "sow")
                                .in(7)
                                .build())
                .anySatisfy(event -> assertThat(event).isInstanceOfSatisfying(StepEnded.class, step -> {
                    assertThat(step.outcome().word()).isEqualTo("undecided");
                    assertThat(step.outcome().needsAttention()).isTrue();
                }));
        assertThat(unknown)
                .containsExactly(
                        "2: the event wave-started",
                        "3: the field log.mood",
                        "4: the kind of step gherkin",
                        "5: the field failure.hint",
                        "5: the outcome undecided",
                        "6: the field link.icon",
                        "7: the field body.lang");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"event\":\"journal-opened\",\"at\":0,\"format\":1,\"worker\":\"w\",\"wall\":\"+999999999-01-01T00:00:00Z\",\"pid\":1,\"verbale\":\"1\"}",
                "{\"event\":\"log\",\"at\":9223372036854775807,\"text\":\"x\"}",
                "{\"event\":\"log\",\"at\":-1,\"text\":\"x\"}",
                "{\"event\":\"log\",\"at\":99999999999999999999999,\"text\":\"x\"}",
                "{\"event\":\"step-budget\",\"at\":1,\"id\":1,\"micros\":9223372036854775}"
            })
    void a_time_that_no_run_has_is_named_and_not_reckoned_with(String line) throws Exception {
        Path file = written();
        Files.writeString(file, line + "\n", StandardOpenOption.APPEND);

        read(file);

        assertThat(events).hasSize(1);
        assertThat(unread).singleElement().asString().startsWith("2: ");
    }

    @Test
    void a_line_without_end_is_passed_over_and_the_next_one_is_read() throws Exception {
        Path file = written();
        try (var out = Files.newOutputStream(file, StandardOpenOption.APPEND)) {
            byte[] piece = "x".repeat(1 << 20).getBytes(StandardCharsets.UTF_8);
            for (int written = 0; written <= JournalReader.LONGEST_LINE; written += piece.length) out.write(piece);
            out.write("\n{\"event\":\"log\",\"at\":1,\"text\":\"still read\"}\n".getBytes(StandardCharsets.UTF_8));
        }

        read(file);

        assertThat(events).contains(LogWritten.text(1, 0, "still read", null));
        assertThat(unread).containsExactly("2: longer than 64 MB, which no recorder writes");
    }

    @Test
    void a_field_that_stands_twice_is_said_and_its_last_value_kept() throws Exception {
        Path file = written();
        Files.writeString(
                file, "{\"event\":\"log\",\"at\":1,\"text\":\"a\",\"text\":\"b\"}\n", StandardOpenOption.APPEND);

        read(file);

        assertThat(events).contains(LogWritten.text(1, 0, "b", null));
        assertThat(unread).containsExactly("2: has the same field twice, of which the last one counts: [text]");
    }

    @Test
    void half_a_character_is_replaced_by_the_writer_and_by_the_reader() throws Exception {
        Path file = written(LogWritten.text(1, 0, "a\uD83C, \uDF31b, \uD83C\uDF31", null));
        Files.writeString(
                file,
                "{\"event\":\"data\",\"at\":1,\"name\":\"k\\uD800\",\"value\":\"v\"}\n",
                StandardOpenOption.APPEND);

        read(file);

        assertThat(unread).isEmpty();
        assertThat(events)
                .contains(
                        LogWritten.text(1, 0, "a\uFFFD, \uFFFDb, \uD83C\uDF31", null),
                        new DataNamed(1, 0, "k\uFFFD", "v"));
    }

    /** The stack ends at each depth in turn, while others write: nobody is left waiting, and no line is spoiled. */
    @Test
    void a_stack_that_ends_inside_of_a_write_leaves_the_journal_open_for_the_others() throws Exception {
        Path file = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
        var others = new AtomicInteger();
        var over = new AtomicBoolean();
        var other = new Thread(() -> {
            while (!over.get()) {
                try {
                    writer.append(LogWritten.text(1, 0, "other", null));
                    others.incrementAndGet();
                    LockSupport.parkNanos(20_000); // it need not fill the disk
                } catch (IOException unwritten) {
                    throw new UncheckedIOException(unwritten);
                }
            }
        });
        other.start();
        var acknowledged = new AtomicInteger();
        for (int round = 0; round < (Boolean.getBoolean("verbale.night") ? 300 : 97); round++) {
            int frames = round;
            var overflowing = new Thread(null, () -> overflow(writer, frames % 97, acknowledged), "deep", 1 << 18);
            overflowing.start();
            overflowing.join();
        }
        over.set(true);
        other.join();

        read(file);

        assertThat(unread).isEmpty();
        assertThat(events.stream()
                        .filter(event ->
                                event instanceof LogWritten line && line.text().equals("other")))
                .hasSize(others.get());
        assertThat(events.stream()
                        .filter(event ->
                                event instanceof LogWritten line && line.text().equals("deep")))
                .hasSizeGreaterThanOrEqualTo(acknowledged.get());
        assertThat(acknowledged).hasPositiveValue();
    }

    /** Writes at every depth on the way down, until the stack ends somewhere; {@code phase} shifts where. */
    private static void overflow(JournalWriter writer, int phase, AtomicInteger acknowledged) {
        try {
            if (phase > 0) overflow(writer, phase - 1, acknowledged);
            else writeAndGoDeeper(writer, acknowledged, 0);
        } catch (StackOverflowError ended) {
            // as was wanted
        }
    }

    private static void writeAndGoDeeper(JournalWriter writer, AtomicInteger acknowledged, int depth) {
        try {
            if (depth > 1_000) writer.append(LogWritten.text(1, 0, "deep", null));
            if (depth > 1_000) acknowledged.incrementAndGet();
        } catch (IOException unwritten) {
            throw new UncheckedIOException(unwritten);
        } catch (StackOverflowError here) {
            // and deeper still
        }
        writeAndGoDeeper(writer, acknowledged, depth + 1);
    }

    @Test
    void an_empty_journal_says_so() throws Exception {
        read(Files.createFile(folder.resolve("worker-1.jsonl")));

        assertThat(unread).containsExactly("1: the journal is empty");
    }

    @Test
    void a_journal_without_a_beginning_is_read_and_said_to_have_none() throws Exception {
        Path file = Files.writeString(folder.resolve("a.jsonl"), "{\"event\":\"log\",\"at\":1,\"text\":\"lonely\"}\n");

        read(file);

        assertThat(events).hasSize(1);
        assertThat(unread).singleElement().asString().contains("does not begin with 'journal-opened'");
    }

    private Path written(Event... more) throws IOException {
        Path file = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
        for (Event event : more) writer.append(event);
        writer.sync();
        return file;
    }

    private void read(Path file) throws IOException {
        JournalReader.read(file, new JournalReader.Listener() {
            @Override
            public void event(Event event, int line) {
                events.add(event);
            }

            @Override
            public void unread(int line, String why) {
                unread.add(line + ": " + why);
            }

            @Override
            public void unknown(int line, String what) {
                unknown.add(line + ": " + what);
            }

            @Override
            public void odd(int line, String what) {
                unread.add(line + ": " + what);
            }
        });
    }
}
