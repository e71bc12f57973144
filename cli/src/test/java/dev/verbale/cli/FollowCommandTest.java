package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.JournalEnded;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.SampleRun;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The command, in a JVM of its own, beside a journal that grows. */
class FollowCommandTest {

    @TempDir
    Path root;

    private SampleRun run;
    private Process follower;
    private BufferedReader lines;
    private final StringBuilder out = new StringBuilder();

    @AfterEach
    void end() throws Exception {
        if (follower != null) follower.destroyForcibly().waitFor(10, TimeUnit.SECONDS);
    }

    private void open(String name) throws IOException {
        run = SampleRun.in(root, name).worker("worker-1", SampleRun.WALL);
    }

    private void begin(int id, String name) throws IOException {
        run.write(TestStarted.of(id * 1_000L, id, "k" + id, name)
                .className("sample.GateTest")
                .methodName("k" + id)
                .thread("main")
                .build());
    }

    private void passed(int id) throws IOException {
        run.write(TestEnded.of(id * 1_000L + 500, id, Outcome.PASSED).build());
    }

    private void failed(int id, String message) throws IOException {
        run.write(TestEnded.of(id * 1_000L + 500, id, Outcome.FAILED)
                .failure(SampleRun.failure("java.lang.AssertionError", message))
                .build());
    }

    private void close() throws IOException {
        run.write(new JournalEnded(60_000, 0, Map.of(), 0));
    }

    private void follow(List<String> jvm, String... arguments) throws IOException {
        List<String> command = Jvm.command(jvm, Jvm.classPath(), Main.class, "runs", "follow");
        command.addAll(List.of(arguments));
        command.add(root.toString());
        var builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().put("COLUMNS", "60");
        builder.environment().put("VERBALE_HISTORY", root.resolve("no-history").toString());
        follower = builder.start();
        lines = new BufferedReader(new InputStreamReader(follower.getInputStream(), StandardCharsets.UTF_8));
    }

    /** Reads on until a line has {@code words}. */
    private String await(String words) throws IOException {
        String line;
        while ((line = lines.readLine()) != null) {
            out.append(line).append('\n');
            if (line.contains(words)) return line;
        }
        throw new AssertionError("'" + words + "' never came in:\n" + out);
    }

    @Test
    void failures_come_as_they_happen_the_page_is_kept_and_the_end_is_like_any_other() throws Exception {
        open("tonight");
        begin(2, "the gate opens");
        follow(List.of(), "--silence", "1");

        await("Page: ");
        Path data = root.resolve("tonight/page/data/run.js");
        assertThat(data).content().contains("\"progress\":{\"number\":1", "the gate opens");
        failed(2, "the hinge is broken");
        await("failed  the gate opens");
        await("the hinge is broken");
        begin(3, "roses grow");
        passed(3);
        close();

        await("1 of 2 tests did not pass: 1 failed, for one reason.");
        await("Page: ");
        assertThat(lines.readLine()).isNull();
        assertThat(follower.waitFor()).isZero();
        assertThat(data).content().contains("roses grow").doesNotContain("\"progress\"");
        assertThat(out.toString().split("failed  the gate opens", -1))
                .as("once")
                .hasSize(2);
    }

    /** Its journal has no end, and never will. */
    @Test
    void a_run_that_was_killed_is_over_when_nothing_was_written_for_ten_minutes() throws Exception {
        open("tonight");
        begin(2, "the gate opens");
        Path journal = root.resolve("tonight/journals/worker-1.jsonl");
        Files.setLastModifiedTime(journal, FileTime.from(Instant.now().minus(Duration.ofMinutes(11))));
        follow(List.of(), "--no-page");

        await("1 of 1 test did not pass: 1 unfinished");
        assertThat(follower.waitFor()).isZero();
    }

    @Test
    void the_next_run_is_waited_for() throws Exception {
        open("a-yesterday");
        close();
        follow(List.of(), "--next", "--no-page", "--silence", "0");
        await("Waiting for the next run in ");

        open("b-tonight");
        begin(2, "the gate opens");
        failed(2, "shut");
        close();

        await("failed  the gate opens");
        await("1 of 1 test did not pass");
        assertThat(follower.waitFor()).isZero();
        assertThat(root.resolve("b-tonight/page")).doesNotExist();
    }

    @Test
    void on_a_terminal_each_drawing_begins_where_the_one_before_began_and_no_line_is_wider() throws Exception {
        open("tonight");
        begin(1, "a name that is far too long for any terminal of sixty columns, and 水をやる花に水をやる花に水をやる\u001b[2J");
        follow(List.of("-Dpicocli.ansi=true"), "--no-page", "--silence", "0");
        await("1 is running");
        begin(2, "the gate opens");
        await("the gate opens  in worker");
        passed(2);
        close();
        await("did not pass: 1 unfinished");
        while (lines.read() >= 0) continue;

        Matcher wipes = Pattern.compile("\u001b\\[(\\d+)A\u001b\\[J").matcher(out);
        int from = 0;
        int seen = 0;
        while (wipes.find()) {
            String drawn = out.substring(from, wipes.start());
            assertThat(drawn.lines().count()).isEqualTo(Long.parseLong(wipes.group(1)));
            assertThat(drawn.lines()).allMatch(line -> columns(line) <= 60);
            from = wipes.end();
            seen++;
        }
        assertThat(seen).isPositive();
        assertThat(out.toString()).doesNotContain("\u001b[2J");
    }

    private static int columns(String line) {
        return line.replaceAll("\u001b\\[[\\d;]*m", "")
                .codePoints()
                .map(c -> Character.isIdeographic(c) || Character.UnicodeBlock.of(c) == Character.UnicodeBlock.HIRAGANA
                        ? 2
                        : 1)
                .sum();
    }

    @Test
    void a_folder_without_runs_is_refused() throws Exception {
        Files.createDirectories(root.resolve("empty"));
        follow(List.of());

        await("verbale: ");
        assertThat(follower.waitFor()).isEqualTo(3);
    }
}
