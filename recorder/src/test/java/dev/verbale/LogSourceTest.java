package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayDeque;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The lines of a service beside the test that fails. */
class LogSourceTest {

    @TempDir
    Path root;

    private AdapterRecorder recorder;
    private Path log;

    @BeforeEach
    void open_a_recorder() throws Exception {
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("runs")).withSummaryLine(false));
        log = Files.writeString(root.resolve("garden.log"), "of before\n");
    }

    private void writes(String text) throws Exception {
        Files.writeString(log, text, StandardOpenOption.APPEND, StandardOpenOption.CREATE);
    }

    private Scope start(String name) {
        return recorder.startTest(
                recorder.run(), TestDescriptor.of("sample#" + name, name).build());
    }

    private void fails(Scope test) {
        recorder.endTest(test, TestEnd.threw(new AssertionError("500")));
    }

    private List<String> lines(int test) throws Exception {
        TestResult read = RunReader.read(root.resolve("runs")).tests().get(test);
        return read.entries().stream()
                .filter(Entry.LogEntry.class::isInstance)
                .map(Entry.LogEntry.class::cast)
                .map(line -> (line.logger() == null ? "" : line.logger() + ": ") + line.text())
                .toList();
    }

    @Test
    void a_failing_test_has_what_the_file_gained_since_its_source_was_registered() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.file("garden", log));
        writes("the pump is broken, password=Bohne-7731\n    at dev.orto.Pump\n\n");
        fails(test);
        Scope calm = start("passes");
        recorder.register(LogSource.file("garden", log));
        writes("all is well\n");
        recorder.endTest(calm, TestEnd.passed());

        assertThat(lines(0)).hasSize(2).element(0).asString().startsWith("garden: the pump is broken, password=");
        assertThat(lines(0)).element(1).isEqualTo("garden:     at dev.orto.Pump");
        assertThat(lines(0).toString()).doesNotContain("Bohne-7731").doesNotContain("of before");
        assertThat(lines(1)).isEmpty();
    }

    @Test
    void each_line_is_told_once_and_a_file_that_is_begun_anew_is_read_from_its_beginning() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.file("garden", log));
        writes("one\n");
        recorder.gatherChecks();
        recorder.checked("first", new AssertionError("first"));
        recorder.checked("second", new AssertionError("second"));
        Files.writeString(log, "new\n");
        fails(test);

        assertThat(lines(0)).containsExactly("garden: one", "garden: new");
    }

    @Test
    void of_many_lines_the_last_are_taken_and_a_file_of_gigabytes_is_not_read() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.file("garden", log));
        writes(String.join(
                        "\n",
                        IntStream.range(0, 60_000).mapToObj(i -> "line " + i).toList()) + "\n");
        fails(test);

        assertThat(lines(0)).hasSize(201).last().isEqualTo("garden: line 59999");
        assertThat(lines(0).get(0)).matches("garden: \\(\\d+ lines before these are left out\\)");
    }

    @Test
    void of_a_source_that_many_tests_share_each_has_the_lines_of_its_own_time() throws Exception {
        recorder.register(LogSource.file("garden", log));
        Instant before = Instant.now().minus(Duration.ofMinutes(10));
        String local = LocalDateTime.ofInstant(before.minus(Duration.ofDays(2)), ZoneId.systemDefault())
                .toString();
        writes(before + " GET /beds of another test\n    at dev.orto.Beds\n");
        writes("[INFO ] " + local.replace('T', ' ').replace('.', ',') + " nobody says in which zone\n");
        writes("a line that says no time stays where it stands\n");
        writes(before.atOffset(ZoneOffset.ofHours(5)).toString() + " in another zone\n");
        writes("2026-99-99T00:00:00Z that no calendar has\n");
        Scope test = start("fails");
        writes(Instant.now().plusSeconds(1) + " GET /plots of this one\n    at dev.orto.Plots\n");
        fails(test);

        assertThat(lines(0))
                .hasSize(3)
                .startsWith("garden: (6 lines are from before this test)")
                .satisfies(lines -> assertThat(lines.get(1)).endsWith("GET /plots of this one"));
    }

    @Test
    void a_command_and_a_text_are_asked_when_something_fails_and_not_before() throws Exception {
        var answers = new ArrayDeque<>(List.of("a\nb\n", "a\nb\nc\n"));
        Scope test = start("fails");
        recorder.register(LogSource.text("shed", answers::remove));
        recorder.register(LogSource.command("printer", "sh", "-c", "echo printed; echo wrong >&2"));
        recorder.gatherChecks();
        assertThat(answers).hasSize(2);
        recorder.checked("first", new AssertionError("first"));
        fails(test);

        assertThat(lines(0)).containsExactly("shed: a", "shed: b", "printer: printed", "printer: wrong", "shed: c");
    }

    @Test
    void what_cannot_be_read_is_said_and_costs_the_test_nothing() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.file("gone", root.resolve("gone.log")));
        recorder.register(LogSource.file("folder", root));
        recorder.register(
                LogSource.command("none", root.resolve("no-such-command").toString()));
        recorder.register(LogSource.text("null", () -> null));
        recorder.register(LogSource.text("throws", () -> {
            throw new IllegalStateException("no log today");
        }));
        Path binary = root.resolve("binary.log");
        recorder.register(LogSource.file("binary", binary));
        Files.write(binary, new byte[] {0, -1, -2, '\n', 'x', '\n'});
        recorder.register(LogSource.file(null, null));
        fails(test);

        assertThat(String.join("\n", lines(0)))
                .contains("No evidence from gone", "No evidence from folder", "No evidence from none")
                .contains("No evidence from throws: java.lang.IllegalStateException: no log today", "binary: x");
        assertThat(RunReader.read(root.resolve("runs")).tests().get(0).failure().message())
                .isEqualTo("500");
    }

    @Test
    void a_command_that_hangs_is_ended() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.command("endless", "sh", "-c", "echo begun; sleep 600"));
        fails(test);

        assertThat(lines(0)).containsExactly("endless: begun", "endless: (the command was ended after 5 s)");
    }

    @Test
    void a_line_in_utf_8_stays_what_it_is() throws Exception {
        Scope test = start("fails");
        recorder.register(LogSource.file("garden", log));
        Files.write(
                log,
                "äöü \uD83C\uDF31\r\nlast without an end".getBytes(StandardCharsets.UTF_8),
                StandardOpenOption.APPEND);
        fails(test);

        assertThat(lines(0)).containsExactly("garden: äöü \uD83C\uDF31", "garden: last without an end");
    }
}
