package dev.verbale.journal;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.verbale.event.ChecksumWritten;
import dev.verbale.event.Event;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.LogWritten;
import dev.verbale.json.TextFilter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.CRC32;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What was done to a journal after it was written is found, also where each of its lines is good JSON; and nothing else is. */
class ChecksumTest {

    private static final int EVENTS = 2_500;

    @TempDir
    Path folder;

    private record Checksum(
            long at, @Nullable Long bytes, @Nullable Long crc32) {}

    private final List<Checksum> checksums = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();

    private Path journal;

    @BeforeEach
    void write() throws IOException {
        journal = folder.resolve("worker-1.jsonl");
        JournalWriter writer = JournalWriter.open(journal, SampleEvents.OPENED, TextFilter.NONE);
        for (int i = 0; i < EVENTS; i++) writer.append(LogWritten.text(i, 0, "bed " + i + " was watered", null));
        writer.append(new JournalEnded(EVENTS, 0, Map.of(), 0));
    }

    @Test
    void an_untouched_journal_fits_its_checksums_which_any_program_can_check() throws Exception {
        read();

        assertThat(problems).isEmpty();
        assertThat(checksums)
                .hasSize(3)
                .last()
                .satisfies(last -> assertThat(last.at()).isEqualTo(EVENTS));
        byte[] bytes = Files.readAllBytes(journal);
        int first = new String(bytes, StandardCharsets.UTF_8).indexOf("{\"event\":\"checksum\"");
        var crc = new CRC32();
        crc.update(bytes, 0, first);
        assertThat(checksums.get(0)).isEqualTo(new Checksum(998, (long) first, crc.getValue()));
    }

    static List<Change> changes() {
        return List.of(
                new Change(
                        "a digit changed",
                        1_500,
                        lines -> lines.set(1_499, lines.get(1_499).replace("watered", "weeded!"))),
                new Change(
                        "the first line changed",
                        1,
                        lines -> lines.set(0, lines.get(0).replace("\"pid\":", "\"pid\":1"))),
                new Change(
                        "the end changed",
                        2_504,
                        lines -> lines.set(2_503, lines.get(2_503).replace("\"missing\":0", "\"missing\":7"))),
                new Change("a line cut out", 40, lines -> lines.remove(39)),
                new Change(
                        "many lines cut out",
                        1_100,
                        lines -> lines.subList(1_099, 1_400).clear()),
                new Change("a line put in", 40, lines -> lines.add(39, lines.get(39))),
                new Change("an empty line put in", 40, lines -> lines.add(39, "")),
                new Change("two lines swapped", 40, lines -> Collections.swap(lines, 39, 40)),
                new Change(
                        "a checksum cut out",
                        1_001,
                        lines -> lines.removeIf(line -> line.contains("\"checksum\"") && line.contains("\"at\":998"))),
                new Change(
                        "a checksum and its lines cut out",
                        2,
                        lines -> lines.subList(1, 1_001).clear()));
    }

    /** What is done to the lines, and the line where it is done. */
    record Change(String name, int at, Consumer<List<String>> how) {
        @Override
        public String toString() {
            return name;
        }
    }

    @ParameterizedTest
    @MethodSource("changes")
    void a_change_is_found_and_its_stretch_named(Change change) throws Exception {
        List<String> lines = new ArrayList<>(Files.readAllLines(journal));
        List<String> before = List.copyOf(lines);
        change.how.accept(lines);
        assertThat(lines).isNotEqualTo(before);
        Files.write(journal, lines);

        read();

        assertThat(problems)
                .singleElement()
                .asString()
                .matches("\\d+: the lines from \\d+ to here are not as they were .*");
        int to = Integer.parseInt(problems.get(0).split(":")[0]);
        int from = Integer.parseInt(problems.get(0).replaceAll(".*from (\\d+) to.*", "$1"));
        assertThat(change.at).isBetween(from, to);
    }

    /** Whatever a byte becomes: it is said, by the line that can no longer be read, or by the sum. */
    @Test
    void each_changed_byte_is_found() throws Exception {
        byte[] whole = Files.readAllBytes(journal);
        int lastSum = new String(whole, StandardCharsets.UTF_8).lastIndexOf("{\"event\":\"checksum\"");
        var random = new Random(11);
        for (int round = 0; round < 300; round++) {
            byte[] changed = whole.clone();
            int at = random.nextInt(lastSum);
            changed[at] ^= (byte) (1 << random.nextInt(8));
            Files.write(journal, changed);
            problems.clear();

            read();

            assertThat(problems).as("byte %d changed", at).isNotEmpty();
        }
    }

    @Test
    void a_full_disk_raises_no_alarm_and_later_lines_are_summed_again() throws Exception {
        try (var disk = Jimfs.newFileSystem(Configuration.unix().toBuilder()
                .setBlockSize(512)
                .setMaxSize(400_000)
                .build())) {
            Path file = disk.getPath("/worker-1.jsonl");
            Path ballast = disk.getPath("/ballast");
            JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
            Files.write(ballast, new byte[398_000]);
            int refused = 0;
            for (int i = 0; i < 30; i++) {
                try {
                    writer.append(LogWritten.text(i, 0, "a line for which there may be no room", null));
                } catch (IOException full) {
                    refused++;
                }
            }
            Files.delete(ballast);
            for (int i = 0; i < 2_100; i++) writer.append(LogWritten.text(i, 0, "there is room again", null));
            journal = file;

            read();

            assertThat(refused).isPositive();
            assertThat(problems).allSatisfy(problem -> assertThat(problem).contains("not JSON"));
            assertThat(checksums).extracting(Checksum::crc32).hasSize(2).first().isNull();
            assertThat(checksums.get(1).crc32()).isNotNull();
        }
    }

    /** At every byte at which a disk may be full, the line that asks for the sum among them. */
    @Test
    void a_disk_that_is_full_at_the_checksum_costs_the_checksum_alone() throws Exception {
        for (int room = 0; room < 200; room += 10) {
            try (var disk = Jimfs.newFileSystem(Configuration.unix().toBuilder()
                    .setBlockSize(8)
                    .setMaxSize(1 << 20)
                    .build())) {
                Path file = disk.getPath("/worker-1.jsonl");
                JournalWriter writer = JournalWriter.open(file, SampleEvents.OPENED, TextFilter.NONE);
                for (int i = 0; i < 998; i++) writer.append(LogWritten.text(i, 0, "line", null));
                Path ballast = disk.getPath("/ballast");
                long free = disk.getFileStores().iterator().next().getUsableSpace();
                Files.write(ballast, new byte[(int) free - room]);
                try {
                    writer.append(LogWritten.text(998, 0, "line", null));
                } catch (IOException full) {
                    assertThat(room).as("room for the line itself").isLessThan(60);
                }
                Files.delete(ballast);
                for (int i = 0; i < 10; i++) writer.append(LogWritten.text(999, 0, "later", null));
                writer.append(new JournalEnded(1_000, 0, Map.of(), 0));
                journal = file;
                problems.clear();
                checksums.clear();

                read();

                assertThat(problems)
                        .as("room for %d bytes", room)
                        .allSatisfy(problem -> assertThat(problem).contains("not JSON"));
                assertThat(checksums).as("room for %d bytes", room).hasSizeBetween(1, 2);
            }
        }
    }

    @Test
    void a_journal_of_an_earlier_version_has_no_checksums_and_no_problem() throws Exception {
        List<String> lines = new ArrayList<>(Files.readAllLines(journal));
        lines.removeIf(line -> line.contains("\"checksum\""));
        Files.write(journal, lines);

        read();

        assertThat(problems).isEmpty();
    }

    private static @Nullable Long number(Matcher line, int group) {
        return line.group(group) == null ? null : Long.valueOf(line.group(group));
    }

    private void read() throws IOException {
        Matcher line = Pattern.compile(
                        "\\{\"event\":\"checksum\",\"at\":(\\d+)(?:,\"bytes\":(\\d+))?(?:,\"crc32\":(\\d+))?\\}")
                .matcher(Files.readString(journal, StandardCharsets.ISO_8859_1));
        while (line.find())
            checksums.add(new Checksum(Long.parseLong(line.group(1)), number(line, 2), number(line, 3)));
        JournalReader.read(journal, new JournalReader.Listener() {
            @Override
            public void event(Event event, int line) {
                assertThat(event).isNotInstanceOf(ChecksumWritten.class);
            }

            @Override
            public void unread(int line, String why) {
                problems.add(line + ": " + why);
            }

            @Override
            public void unknown(int line, String what) {
                problems.add(line + ": unknown " + what);
            }

            @Override
            public void odd(int line, String what) {
                problems.add(line + ": " + what);
            }
        });
    }
}
