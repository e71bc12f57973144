package dev.verbale.packing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.join.RunJoiner;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import gov.loc.repository.bagit.reader.BagReader;
import gov.loc.repository.bagit.verify.BagVerifier;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is packed is what was recorded, or says what it lacks. */
class RunPackerTest {

    @TempDir
    Path root;

    private RunFolder run;
    private Path zip;

    @BeforeEach
    void record() throws Exception {
        run = RecordedRun.whole(root.resolve("runs"), "night");
        zip = root.resolve("night.zip");
    }

    @Test
    void a_pack_is_read_as_the_run_is_and_is_the_same_each_time() throws Exception {
        Files.createDirectories(run.page());
        Files.writeString(run.page().resolve("index.html"), "not of the run");
        RunPacker.Packed packed = RunPacker.pack(run, zip, PackOptions.WHOLE);
        byte[] first = Files.readAllBytes(zip);
        RunPacker.pack(run, zip, PackOptions.WHOLE);

        assertThat(Files.readAllBytes(zip)).isEqualTo(first);
        assertThat(packed.leftOut()).isEmpty();
        assertThat(outline(zip)).isEqualTo(outline(RunReader.read(run.path())));
        assertThat(outline(zip)).contains("a stone").doesNotContain("not of the run");
    }

    /** To try costs ten times as much as to copy; a name alone does not say it. */
    @Test
    void bytes_that_nothing_makes_smaller_are_stored_whatever_they_are_called() throws Exception {
        byte[] noise = new byte[300_000];
        new Random(3).nextBytes(noise);
        Files.createDirectories(run.path().resolve("run"));
        Files.write(run.path().resolve("run/core.dump"), noise);
        Files.write(run.path().resolve("run/zeros.dump"), new byte[300_000]);
        RunPacker.pack(run, zip, PackOptions.WHOLE);

        try (var archive = new ZipFile(zip.toFile())) {
            ZipEntry dense = entry(archive, "core.dump");
            assertThat(dense.getCompressedSize()).isBetween(300_000L, 300_200L);
            assertThat(archive.getInputStream(dense).readAllBytes()).isEqualTo(noise);
            assertThat(entry(archive, "zeros.dump").getCompressedSize()).isLessThan(1_000);
        }
    }

    private static ZipEntry entry(ZipFile archive, String name) {
        return archive.stream()
                .filter(one -> one.getName().endsWith(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void archives_own_tools_find_it_right_and_find_what_was_changed() throws Exception {
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        Path bag = unpacked(zip).resolve("night");

        try (var verifier = new BagVerifier()) {
            verifier.isValid(new BagReader().read(bag), false);
            Path photo = bag.resolve("data/night/run.json");
            Files.writeString(photo, Files.readString(photo).replace("night", "nigth"));
            assertThatThrownBy(() -> verifier.isValid(new BagReader().read(bag), false))
                    .hasMessageContaining("run.json");
        }
    }

    @Test
    void failures_only_has_all_of_what_failed_and_of_the_rest_that_it_passed() throws Exception {
        Run whole = RunReader.read(run.path());
        RunPacker.Packed packed = RunPacker.pack(run, zip, PackOptions.WHOLE.withFailuresOnly(true));
        try (PackedRun archive = PackedRun.open(zip)) {
            Run few = RunReader.read(archive.folder());

            assertThat(few.problems()).isEmpty();
            assertThat(few.counts()).isEqualTo(whole.counts());
            assertThat(Headline.of(few))
                    .isEqualTo(Headline.of(whole)
                            + " Left out of this copy: what happened in 2 tests that need no attention.");
            assertThat(ids(few)).isEqualTo(ids(whole));
            for (int i = 0; i < few.tests().size(); i++) {
                TestResult before = whole.tests().get(i);
                TestResult now = few.tests().get(i);
                assertThat(now.identity()).isEqualTo(before.identity());
                assertThat(now.end()).isEqualTo(before.end());
                if (now.outcome().needsAttention())
                    assertThat(bare(now.entries(), few)).isEqualTo(bare(before.entries(), whole));
                else assertThat(now.entries()).isEmpty();
            }
        }
        assertThat(packed.leftOut()).isEqualTo("what happened in 2 tests that need no attention");
        assertThat(packed.files()).isLessThan(files(run));
    }

    @ParameterizedTest
    @ValueSource(strings = {"bodies", "attachment", "logs"})
    void what_is_not_wanted_is_nowhere_in_it_and_is_said(String part) throws Exception {
        String has = List.of("loam loam", "reaps;3", "a worm in")
                .get(List.of("bodies", "attachment", "logs").indexOf(part));
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        assertThat(anywhere(zip, has)).isTrue();

        RunPacker.Packed packed = RunPacker.pack(run, zip, PackOptions.WHOLE.withWithout(Set.of(part)));

        assertThat(anywhere(zip, has)).isFalse();
        assertThat(packed.leftOut()).isNotEmpty();
        try (PackedRun archive = PackedRun.open(zip)) {
            Run left = RunReader.read(archive.folder());
            assertThat(left.problems()).isEmpty();
            assertThat(left.counts()).isEqualTo(RunReader.read(run.path()).counts());
            assertThat(left.facts()).containsEntry("left out", packed.leftOut());
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {140_000, 80_000, 60_000, 40_000, 12_000})
    void it_is_never_larger_than_was_asked_for_and_keeps_what_matters_longest(long limit) throws Exception {
        RunPacker.Packed packed = RunPacker.pack(run, zip, PackOptions.WHOLE.withMaxBytes(limit));

        assertThat(Files.size(zip)).isLessThanOrEqualTo(limit);
        try (PackedRun archive = PackedRun.open(zip)) {
            Run left = RunReader.read(archive.folder());
            assertThat(left.problems()).isEmpty();
            assertThat(left.counts()).isEqualTo(RunReader.read(run.path()).counts());
            assertThat(packed.leftOut().isEmpty()).isEqualTo(limit == 140_000);
            assertThat(photos(left, true)).isGreaterThanOrEqualTo(photos(left, false));
            if (limit == 60_000) assertThat(photos(left, true)).isEqualTo(2).isNotEqualTo(photos(left, false));
        }
    }

    @Test
    void what_cannot_be_made_so_small_is_refused_and_the_file_stays_as_it_was() throws Exception {
        Files.writeString(zip, "precious");

        assertThatThrownBy(() -> RunPacker.pack(run, zip, PackOptions.WHOLE.withMaxBytes(900)))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("which is more than 900");
        assertThat(zip).hasContent("precious");
        try (var left = Files.list(root)) {
            assertThat(left.map(one -> one.getFileName().toString())).containsExactlyInAnyOrder("night.zip", "runs");
        }
    }

    @Test
    void a_run_that_was_killed_stays_one_and_what_could_not_be_read_is_a_problem_of_the_pack() throws Exception {
        var killed = new RecordedRun(root.resolve("killed"), "killed");
        killed.test("digs", null);
        Path journal = killed.folder().journalFiles().get(0);
        Files.writeString(journal, "{\"event\":\"log\",\"at\":", StandardOpenOption.APPEND);
        Run before = RunReader.read(killed.folder().path());

        RunPacker.pack(killed.folder(), zip, PackOptions.WHOLE);
        assertThat(outline(zip)).isEqualTo(outline(before));

        RunPacker.pack(killed.folder(), zip, PackOptions.WHOLE.withFailuresOnly(true));
        try (PackedRun archive = PackedRun.open(zip)) {
            Run left = RunReader.read(archive.folder());
            assertThat(left.incomplete().isNothing()).isFalse();
            assertThat(left.problems()).anyMatch(problem -> problem.sentence().contains("torn"));
        }
    }

    @Test
    void packs_are_joined_and_joined_runs_are_packed() throws Exception {
        RunFolder other = RecordedRun.whole(root.resolve("runs"), "morning");
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        Path second = root.resolve("morning.zip");
        RunPacker.pack(other, second, PackOptions.WHOLE);
        Path joined = root.resolve("joined");
        try (PackedRun one = PackedRun.open(zip);
                PackedRun two = PackedRun.open(second)) {
            RunJoiner.join(List.of(one.folder(), two.folder()), joined);
        }

        Run read = RunReader.read(joined);
        assertThat(read.problems()).isEmpty();
        assertThat(read.tests()).hasSize(8);
        RunPacker.pack(new RunFolder(joined), zip, PackOptions.WHOLE);
        assertThat(outline(zip)).isEqualTo(outline(read));
        RunPacker.pack(
                new RunFolder(joined),
                zip,
                PackOptions.WHOLE.withFailuresOnly(true).withMaxBytes(70_000));
        try (PackedRun archive = PackedRun.open(zip)) {
            Run left = RunReader.read(archive.folder());
            assertThat(left.problems()).isEmpty();
            assertThat(left.counts()).isEqualTo(read.counts());
        }
    }

    @Test
    void damage_is_found_or_changes_nothing() throws Exception {
        RunPacker.pack(run, zip, PackOptions.WHOLE);
        byte[] right = Files.readAllBytes(zip);
        String outline = outline(zip);
        var random = new Random(5);
        int found = 0;
        for (int i = 0; i < 400; i++) {
            byte[] wrong = right.clone();
            // Half of them in the list of files, which is at the end and says what there is.
            int at = i % 2 == 0 ? random.nextInt(right.length) : right.length - 1 - random.nextInt(3_000);
            wrong[at] ^= (byte) (1 << random.nextInt(8));
            if (i % 10 == 0) wrong = java.util.Arrays.copyOf(wrong, at);
            Files.write(zip, wrong);
            try (PackedRun archive = PackedRun.open(zip)) {
                Run read = RunReader.read(archive.folder());
                readAll(archive.folder());
                if (read.problems().isEmpty())
                    assertThat(outline(read)).as("byte " + at).isEqualTo(outline);
                else found++;
            } catch (IOException damaged) {
                found++;
            }
        }
        assertThat(found).isGreaterThan(200);
    }

    private static void readAll(Path folder) throws IOException {
        for (Path file : dev.verbale.folder.RunFiles.of(new RunFolder(folder), Set.of()))
            try (InputStream in = dev.verbale.journal.PlainFile.open(file)) {
                in.readAllBytes();
            }
    }

    private static List<String> ids(Run read) {
        return FailureReason.of(read).stream().map(FailureReason::id).toList();
    }

    private static int files(RunFolder folder) throws IOException {
        return dev.verbale.folder.RunFiles.of(folder, Set.of()).size();
    }

    private static long photos(Run read, boolean ofFailures) {
        return read.tests().stream()
                .filter(test -> test.outcome().needsAttention() == ofFailures)
                .flatMap(test -> test.entries().stream())
                .filter(entry ->
                        entry instanceof Entry.AttachmentEntry one && one.name().equals("photo") && one.file() != null)
                .count();
    }

    private static String bare(List<Entry> entries, Run of) {
        return entries.toString()
                .replace(of.folder().toAbsolutePath().normalize().toString(), "RUN");
    }

    private static String outline(Path archive) throws IOException {
        try (PackedRun packed = PackedRun.open(archive)) {
            return outline(RunReader.read(packed.folder()));
        }
    }

    private static String outline(Run read) {
        return (read.name()
                        + read.facts()
                        + read.workers()
                        + read.tests()
                        + read.containers()
                        + read.entries()
                        + read.problems())
                .replace(read.folder().toAbsolutePath().normalize().toString(), "RUN");
    }

    private static boolean anywhere(Path archive, String text) throws IOException {
        try (var file = new ZipFile(archive.toFile())) {
            for (ZipEntry entry : file.stream().toArray(ZipEntry[]::new))
                if (new String(file.getInputStream(entry).readAllBytes(), java.nio.charset.StandardCharsets.UTF_8)
                        .contains(text)) return true;
        }
        return false;
    }

    private Path unpacked(Path archive) throws IOException {
        Path folder = root.resolve("unpacked");
        try (var file = new ZipFile(archive.toFile())) {
            for (ZipEntry entry : file.stream().toArray(ZipEntry[]::new)) {
                Path target = folder.resolve(entry.getName());
                Files.createDirectories(target.getParent());
                Files.copy(file.getInputStream(entry), target);
            }
        }
        return folder;
    }
}
