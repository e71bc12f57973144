package dev.verbale.packing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Archives of others, and of those who mean harm. */
class PackedRunTest {

    @TempDir
    Path root;

    @ParameterizedTest
    @ValueSource(strings = {"", "night/", "target/verbale/night/", "artifact/night/"})
    void what_a_ci_system_makes_an_archive_of_is_read_too(String below) throws Exception {
        RunFolder run = RecordedRun.whole(root.resolve("runs"), "night");
        Path zip = zip(out -> {
            for (Path file : dev.verbale.folder.RunFiles.of(run, java.util.Set.of()))
                put(out, below + run.nameInJournal(file), Files.readAllBytes(file));
        });

        try (PackedRun archive = PackedRun.open(zip)) {
            Run read = RunReader.read(archive.folder());
            assertThat(read.tests()).hasSize(4);
            assertThat(read.problems()).isEmpty();
            assertThat(read.name()).isEqualTo(below.isEmpty() ? "run" : "night");
        }
    }

    @Test
    void of_several_runs_the_newest_is_read() throws Exception {
        RunFolder first = RecordedRun.whole(root.resolve("runs"), "2026-11-29_1");
        RunFolder second = RecordedRun.whole(root.resolve("runs"), "2026-11-30_1");
        Path zip = zip(out -> {
            for (RunFolder run : java.util.List.of(second, first))
                for (Path file : dev.verbale.folder.RunFiles.of(run, java.util.Set.of()))
                    put(out, run.name() + "/" + run.nameInJournal(file), Files.readAllBytes(file));
        });

        try (PackedRun archive = PackedRun.open(zip)) {
            assertThat(RunReader.read(archive.folder()).name()).isEqualTo("2026-11-30_1");
        }
    }

    @Test
    void what_is_no_archive_or_has_no_run_says_what_it_is() throws Exception {
        Path text = Files.writeString(root.resolve("a.zip"), "no archive");
        assertThatThrownBy(() -> PackedRun.open(text))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContaining("a.zip: this is no ZIP archive, or it is cut off");
        Path page = zip(out -> put(out, "night/data/night/index.html", new byte[0]));
        assertThatThrownBy(() -> PackedRun.open(page))
                .hasMessageContaining(
                        "there is no run in it. It has a page, which a browser shows where it is unpacked.");
        Path empty = zip(out -> put(out, "x/y.txt", new byte[0]));
        assertThatThrownBy(() -> PackedRun.open(empty)).hasMessageContaining("A run has a file run.json");
    }

    @Test
    void ways_out_of_an_archive_are_not_gone() throws Exception {
        Path zip = zip(out -> {
            put(out, "../../night/run.json", "{}".getBytes());
            put(out, "/etc/run.json", "{}".getBytes());
        });

        assertThatThrownBy(() -> PackedRun.open(zip))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContaining("it cannot be opened");
    }

    @Test
    void an_archive_that_is_a_thousand_times_larger_inside_is_not_opened() throws Exception {
        Path zip = zip(out -> {
            put(out, "night/run.json", "{}".getBytes());
            put(out, "night/journals/a.jsonl", new byte[1 << 20]);
        });
        saysOfSize(zip, 1 << 20, Integer.MAX_VALUE);

        assertThatThrownBy(() -> PackedRun.open(zip)).hasMessageContaining("times larger than itself");
    }

    @Test
    void a_file_that_is_longer_than_its_archive_says_is_read_no_further() throws Exception {
        byte[] bytes = "{\"format\":1}".getBytes();
        byte[] large = new byte[1 << 20];
        Path zip = zip(out -> {
            put(out, "night/run.json", bytes);
            put(out, "night/journals/a.jsonl", large);
        });
        saysOfSize(zip, 1 << 20, 10);

        try (PackedRun archive = PackedRun.open(zip)) {
            Run read = RunReader.read(archive.folder());
            assertThat(read.problems().toString()).contains("longer than the archive says");
        }
    }

    @Test
    void an_archive_that_says_it_has_millions_of_files_is_not_listed() throws Exception {
        Path zip = zip(out -> put(out, "night/run.json", "{}".getBytes()));
        byte[] all = Files.readAllBytes(zip);
        byte[] large = ByteBuffer.allocate(56 + 20 + 22)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(0x06064b50)
                .putLong(44)
                .putInt(0)
                .putLong(0)
                .putLong(90_000_000L)
                .putLong(90_000_000L)
                .putLong(40)
                .putLong(0)
                .putInt(0x07064b50)
                .putInt(0)
                .putLong(all.length - 22L)
                .putInt(1)
                .put(all, all.length - 22, 22)
                .array();
        byte[] both = Arrays.copyOf(all, all.length - 22 + large.length);
        System.arraycopy(large, 0, both, all.length - 22, large.length);
        Files.write(zip, both);

        assertThatThrownBy(() -> PackedRun.open(zip)).hasMessageContaining("it has 90000000 files");
    }

    @Test
    void a_bag_that_lacks_a_journal_or_has_one_more_is_not_read() throws Exception {
        RunFolder run = RecordedRun.whole(root.resolve("runs"), "night");
        Path zip = root.resolve("pack.zip");
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        String journal =
                "night/data/night/journals/" + run.journalFiles().get(0).getFileName();

        Path less = copy(zip, journal, null);
        assertThatThrownBy(() -> PackedRun.open(less)).hasMessageContaining("is in its manifest, and not in it");
        Path more = copy(zip, null, "night/data/night/journals/other.jsonl");
        assertThatThrownBy(() -> PackedRun.open(more)).hasMessageContaining("is in it, and not in its manifest");
        Path bare = copy(zip, "night/manifest-sha256.txt", null);
        assertThatThrownBy(() -> PackedRun.open(bare)).hasMessageContaining("its manifest cannot be read");
    }

    /** As a liar would: another size in the list of files, and beside the file. */
    private static void saysOfSize(Path zip, int size, int other) throws Exception {
        byte[] all = Files.readAllBytes(zip);
        ByteBuffer lying = ByteBuffer.wrap(all).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < all.length - 4; i++) if (lying.getInt(i) == size) lying.putInt(i, other);
        Files.write(zip, all);
    }

    private interface Writing {
        void to(ZipOutputStream out) throws Exception;
    }

    private Path copy(Path zip, String without, String with) throws Exception {
        try (var from = new java.util.zip.ZipFile(zip.toFile())) {
            return zip(out -> {
                for (ZipEntry entry : from.stream().toArray(ZipEntry[]::new))
                    if (!entry.getName().equals(without))
                        put(out, entry.getName(), from.getInputStream(entry).readAllBytes());
                if (with != null) put(out, with, new byte[0]);
            });
        }
    }

    private Path zip(Writing writing) throws Exception {
        Path zip = Files.createTempFile(root, "made", ".zip");
        try (OutputStream file = Files.newOutputStream(zip);
                var out = new ZipOutputStream(file)) {
            writing.to(out);
        }
        return zip;
    }

    private static void put(ZipOutputStream out, String name, byte[] bytes) throws Exception {
        out.putNextEntry(new ZipEntry(name));
        out.write(bytes);
        out.closeEntry();
    }
}
