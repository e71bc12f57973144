package dev.verbale.folder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Places and names on disk. */
class FolderTest {

    private static final Instant MORNING = Instant.parse("2026-11-24T10:31:07.123Z");

    @TempDir
    Path folder;

    @Test
    void names_in_text_order_are_runs_in_the_order_of_time() {
        List<String> names = new ArrayList<>();
        for (long millis = 0; millis < 3_000; millis += 37)
            names.add(RunName.of(MORNING.plusMillis(millis), new Random(millis)));

        assertThat(names)
                .isSorted()
                .doesNotHaveDuplicates()
                .allMatch(name -> name.matches("2026-11-24_1031\\d\\d_[0-9a-z]{4}"));
    }

    @Test
    void two_runs_never_share_a_folder_even_by_chance() throws Exception {
        var root = new ResultsRoot(folder.resolve("target/verbale"));

        RunFolder one = root.createRun(MORNING, new Random(1));
        RunFolder other = root.createRun(MORNING, new Random(1));

        assertThat(one).isNotEqualTo(other);
    }

    @Test
    void the_newest_is_the_last_name_and_other_folders_are_passed_over() throws Exception {
        var root = new ResultsRoot(folder);
        RunFolder older = described(root.createRun(MORNING, new Random(1)));
        RunFolder newer = described(root.createRun(MORNING.plusSeconds(1), new Random(2)));
        Files.createDirectory(folder.resolve("zzz-not-a-run"));
        Files.createFile(folder.resolve("zzz-file"));

        assertThat(root.runs()).containsExactly(older, newer);
        assertThat(root.newest()).contains(newer);
        assertThat(new ResultsRoot(folder.resolve("nowhere")).newest()).isEmpty();
    }

    @Test
    void a_description_comes_back_and_the_first_one_stays() throws Exception {
        Map<String, String> facts = new LinkedHashMap<>(Map.of("os", "Linux \"6\""));
        var first = new RunDescription(1, "run", MORNING, facts);
        Path file = folder.resolve("run.json");

        first.writeIfAbsent(file);
        new RunDescription(1, "other", MORNING, Map.of()).writeIfAbsent(file);

        assertThat(RunDescription.read(file)).isEqualTo(first);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"format\":1                                  | not JSON",
                "[]                                             | not a JSON object",
                "{\"format\":1,\"started\":\"2026-11-24T10:00:00Z\"} | there is no 'name'",
                "{\"name\":\"a\",\"started\":\"yesterday\"}           | 'started' is not a time: yesterday"
            })
    void a_broken_description_says_what_is_wrong(String content, String message) throws Exception {
        Path file = Files.writeString(folder.resolve("run.json"), content);

        assertThatThrownBy(() -> RunDescription.read(file)).hasMessageContaining(message);
    }

    @ParameterizedTest
    @CsvSource({
        "'Rota: before swap!', Rota-before-swap",
        "'../../etc/passwd', etc-passwd",
        "'  ', unnamed",
        "'CON', CON-",
        "'.hidden', hidden",
        "'Äpfel & Birnen', Äpfel-Birnen",
        "'a\\b|c?d*e<f>g', a-b-c-d-e-f-g",
        "'swaps() [2] 12, 7', swaps-2-12-7"
    })
    void file_names_are_safe_and_understood(String text, String name) {
        assertThat(FileNames.of(text)).isEqualTo(name);
    }

    @Test
    void file_names_are_short_enough_for_every_file_system() {
        String name = FileNames.of("\uD83C\uDF31 名".repeat(200) + "A".repeat(300));

        assertThat(name.codePointCount(0, name.length())).isLessThanOrEqualTo(FileNames.LONGEST);
        assertThat(name.getBytes(StandardCharsets.UTF_8).length).isLessThan(240);
    }

    @ParameterizedTest
    @CsvSource({"rota.csv, .csv", "archive.tar.GZ, .gz", "no-extension, ''", ".profile, ''", "odd.a b, ''"})
    void extensions_are_plain(String name, String extension) {
        assertThat(FileNames.extension(name)).isEqualTo(extension);
    }

    @Test
    void types_follow_from_names_and_back() {
        assertThat(MediaTypes.ofFile("page.HTML")).isEqualTo("text/html");
        assertThat(MediaTypes.ofFile("x.unknown")).isEqualTo(MediaTypes.UNKNOWN);
        assertThat(MediaTypes.extension("application/json; charset=utf-8")).isEqualTo(".json");
        assertThat(MediaTypes.extension("application/problem+json")).isEqualTo(".json");
        assertThat(MediaTypes.extension("text/x-odd")).isEqualTo(".txt");
        assertThat(MediaTypes.isText("image/svg+xml")).isTrue();
        assertThat(MediaTypes.isText("image/png")).isFalse();
    }

    @ParameterizedTest
    @ValueSource(strings = {"../run.json", "/etc/hostname", "tests/../../x", "", ".", "bad\0name"})
    void a_journal_cannot_name_a_file_outside_its_run(String named) throws Exception {
        var run = new RunFolder(Files.createDirectory(folder.resolve("run")));

        assertThat(run.file(named).path()).isNull();
        assertThat(run.file(named).why()).isNotNull();
    }

    @Test
    void a_link_is_no_way_out_of_the_run_wherever_it_stands_in_a_path() throws Exception {
        var run = new RunFolder(Files.createDirectory(folder.resolve("run")));
        Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
        Path secret = Files.writeString(elsewhere.resolve("secret.txt"), "secret");
        Files.createSymbolicLink(run.path().resolve("link.txt"), secret);
        Files.createSymbolicLink(run.path().resolve("dangling.txt"), folder.resolve("nowhere"));
        Files.createSymbolicLink(run.path().resolve("tests"), elsewhere);
        Path plain = Files.writeString(
                Files.createDirectories(run.path().resolve("run")).resolve("01-b.png"), "png");

        for (String named : List.of("link.txt", "dangling.txt", "tests/secret.txt"))
            assertThat(run.file(named))
                    .as(named)
                    .isEqualTo(RunFolder.FileInRun.refused("is a link, which is not followed"));
        assertThat(run.file("run").why()).isEqualTo("is no regular file");
        assertThat(run.file("run/02-c.png").why()).isEqualTo("is missing");
        assertThat(run.file("run/01-b.png").path()).isEqualTo(plain.toAbsolutePath());
    }

    @Test
    void pipes_and_links_are_not_opened_and_files_are_not_read_without_end() throws Exception {
        Path pipe = folder.resolve("pipe");
        assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor())
                .isZero();
        Path file = Files.writeString(folder.resolve("file"), "12345");
        Path link = Files.createSymbolicLink(folder.resolve("link"), file);

        for (Path one : List.of(pipe, link, folder))
            assertThatThrownBy(() -> PlainFile.open(one).close()).hasMessageContaining("is no regular file");
        assertThatThrownBy(() -> PlainFile.bytes(file, 4)).hasMessageContaining("longer than 4 bytes");
        assertThat(PlainFile.bytes(file, 5)).hasSize(5);
    }

    @ParameterizedTest
    @ValueSource(strings = {"+999999999-01-01T00:00:00Z", "1969-12-31T23:59:59Z", "yesterday", ""})
    void a_run_that_started_at_no_time_says_so(String started) throws Exception {
        Path file = Files.writeString(
                folder.resolve("run.json"),
                "{\"format\":1,\"name\":\"n\",\"started\":\"" + started + "\",\"facts\":{}}");

        assertThatThrownBy(() -> RunDescription.read(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("'started' is not a time");
    }

    @Test
    void journals_are_listed_by_name() throws Exception {
        var run = new RunFolder(folder);
        assertThat(run.journalFiles()).isEmpty();
        Files.createDirectories(run.journals());
        List<String> names = new ArrayList<>(List.of("worker-2.jsonl", "worker-1.jsonl", "notes.txt"));
        Collections.shuffle(names, new Random(3));
        for (String name : names) Files.createFile(run.journals().resolve(name));

        assertThat(Stream.of(run.journalFiles().toArray(Path[]::new))
                        .map(file -> file.getFileName().toString()))
                .containsExactly("worker-1.jsonl", "worker-2.jsonl");
    }

    private static RunFolder described(RunFolder run) throws Exception {
        new RunDescription(1, run.name(), MORNING, Map.of()).writeIfAbsent(run.runFile());
        return run;
    }
}
