package dev.verbale.history.digest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Problem;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A run in a few bytes: written, read, and broken in every way. */
class DigestTest {

    @TempDir
    Path folder;

    private Path file;
    private RunDigest digest;

    @BeforeEach
    void write() throws Exception {
        SampleRun run = SampleRun.in(folder, "2026-11-24_103107_k3f9");
        run.write(TestStarted.of(1_000, 1, "dev.orto.RotaTest.swaps()", "swaps “two” days")
                .thread("main")
                .build());
        run.write(
                StepStarted.of(2_000, 2, StepKind.ACTION, "Open the rota").in(1).build());
        run.write(StepEnded.of(52_000, 2, Outcome.PASSED).build());
        run.write(
                LogWritten.of(53_000, 1, "swapped").level("info").logger("orto").build());
        run.write(TestEnded.of(61_000, 1, Outcome.ERRORED)
                .failure(SampleRun.failure("E", "no rota"))
                .build());
        run.write(TestStarted.of(70_000, 3, "dev.orto.RotaTest.swaps()", "swaps “two” days")
                .className("dev.orto.RotaTest")
                .methodName("swaps")
                .tags(List.of("browser", "two words"))
                .thread("main")
                .build());
        run.write(TestEnded.of(95_000, 3, Outcome.PASSED).build());
        run.test("fails", Outcome.FAILED, SampleRun.failure("E", "the shed is locked"));
        digest = RunDigest.of(run.read());
        file = folder.resolve("run.digest.jsonl.gz");
        DigestWriter.write(digest, file);
    }

    @Test
    void a_run_comes_back_as_it_was_remembered() {
        List<Problem> problems = new ArrayList<>();

        RunDigest read = DigestReader.read(file, problems::add).orElseThrow();

        assertThat(problems).isEmpty();
        assertThat(read).isEqualTo(digest);
        assertThat(read.tests()).hasSize(2);
        TestDigest swaps = read.tests().get(0);
        assertThat(swaps)
                .extracting(TestDigest::key, TestDigest::attempts, TestDigest::recovered, TestDigest::millis)
                .containsExactly("dev.orto.RotaTest.swaps()", 2, true, 25);
        assertThat(read.tests().get(1).reason()).isEqualTo(read.reasons().get(0).id());
        assertThat(read.needingAttention()).isEqualTo(1);
    }

    @Test
    void a_step_keeps_its_time() throws Exception {
        var one = new TestDigest(
                "k",
                "n",
                Outcome.PASSED,
                60,
                1,
                false,
                null,
                List.of(new StepTime("Open", 50), new StepTime("Open", 9)));
        var run = new RunDigest(
                digest.run(),
                digest.started(),
                digest.duration(),
                Map.of(),
                true,
                true,
                List.of(one),
                List.of(),
                List.of("dev.orto.ShedTest"));
        DigestWriter.write(run, file);

        assertThat(DigestReader.read(file, problem -> {})).contains(run);
    }

    /** What zcat shows: a person can read it, and a script in any language. */
    @Test
    void the_file_is_packed_json_lines_with_the_tables_first() throws Exception {
        String text = new String(unpacked(), StandardCharsets.UTF_8);

        assertThat(text.lines().toList().subList(1, 11))
                .containsExactly(
                        "{\"tests\":[\"dev.orto.RotaTest.swaps()\",\"sample.fails()\"]}",
                        "{\"names\":[\"swaps “two” days\",\"fails\"]}",
                        "{\"classes\":[\"dev.orto.RotaTest\",\"sample.T\"]}",
                        "{\"methods\":[\"swaps\",\"fails\"]}",
                        "{\"tags\":[\"browser\\ntwo words\",\"\"]}",
                        "{\"steps\":[]}",
                        "{\"reasons\":[\"" + digest.reasons().get(0).id() + "\"]}",
                        "{\"titles\":[\"the shed is locked\"]}",
                        "[\"passed\",25,-2,-1]",
                        "[\"failed\",1,1,0]");
        byte[] once = Files.readAllBytes(file);
        DigestWriter.write(digest, file);
        assertThat(Files.readAllBytes(file)).isEqualTo(once);
    }

    @Test
    void the_example_of_the_documentation_can_be_read() throws Exception {
        String page = Files.readString(Path.of("../docs/history.md"));
        int from = page.indexOf("```json\n") + 8;
        pack(page.substring(from, page.indexOf("```", from)).getBytes(StandardCharsets.UTF_8));
        List<Problem> problems = new ArrayList<>();

        RunDigest read = DigestReader.read(file, problems::add).orElseThrow();

        assertThat(problems).isEmpty();
        assertThat(read.tests().get(0).steps())
                .containsExactly(new StepTime("Open the rota", 310), new StepTime("Swap", 900));
        assertThat(read.tests().get(0).recovered()).isTrue();
        assertThat(read.tests().get(1).reason()).isEqualTo("1ff7bfbedb05");
    }

    @Test
    void of_a_torn_file_what_was_read_until_there_counts() throws Exception {
        byte[] whole = Files.readAllBytes(file);
        for (int length = 0; length < whole.length; length++) {
            Files.write(file, Arrays.copyOf(whole, length));
            List<Problem> problems = new ArrayList<>();

            Optional<RunDigest> read = DigestReader.read(file, problems::add);

            assertThat(problems).as("cut at %s", length).isNotEmpty();
            read.ifPresent(torn -> assertThat(digest.tests())
                    .containsAll(
                            torn.tests().stream().map(this::sameButForTheReason).toList()));
        }
    }

    private TestDigest sameButForTheReason(TestDigest torn) {
        return digest.tests().stream()
                .filter(one -> one.key().equals(torn.key()))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatever_the_lines_hold_nothing_is_thrown_and_problems_are_named() throws Exception {
        byte[] whole = unpacked();
        Random random = new Random(11);
        for (int i = 0; i < 2_000; i++) {
            byte[] mutated = whole.clone();
            for (int changes = random.nextInt(4) + 1; changes > 0; changes--)
                mutated[random.nextInt(mutated.length)] = (byte)
                        (random.nextBoolean() ? "{}[]\",:\n-019eE".charAt(random.nextInt(14)) : random.nextInt(256));
            pack(mutated);
            assertThatCode(() -> DigestReader.read(
                            file, problem -> assertThat(problem.sentence()).startsWith("run.digest")))
                    .as(new String(mutated, StandardCharsets.UTF_8))
                    .doesNotThrowAnyException();
        }
    }

    @Test
    void a_row_that_cannot_be_read_does_not_shift_the_others() throws Exception {
        String text = new String(unpacked(), StandardCharsets.UTF_8);
        for (String broken : List.of("[\"passed\",", "{x", "7", "[1,2]", "[[]]")) {
            String rows = text.replace("[\"passed\",25,-2,-1]", "[\"passed\",25,-2,-1]\n" + broken)
                    .replace("\"sample.fails()\"", "\"broken\",\"sample.fails()\"")
                    .replace("days\",\"fails\"", "days\",\"b\",\"fails\"");
            pack(rows.getBytes(StandardCharsets.UTF_8));
            for (Optional<RunDigest> read : List.of(
                    DigestReader.read(file, problem -> {}),
                    DigestReader.readWithoutSteps(file, problem -> {}, new TableCache())))
                assertThat(read.orElseThrow().tests())
                        .as(broken)
                        .extracting(one -> one.key() + " " + one.outcome().word())
                        .containsExactly("dev.orto.RotaTest.swaps() passed", "sample.fails() failed");
        }
    }

    @Test
    void reading_without_steps_reads_all_else_alike_also_of_what_is_broken() throws Exception {
        byte[] whole = unpacked();
        Random random = new Random(12);
        var cache = new TableCache();
        for (int i = 0; i < 1_000; i++) {
            byte[] mutated = whole.clone();
            int from = whole.length - 40; // most of it are rows
            if (i > 0) mutated[from + random.nextInt(40)] = (byte) "[]\",-0123456789ae".charAt(random.nextInt(17));
            pack(mutated);
            List<TestDigest> slow =
                    DigestReader.read(file, problem -> {}).map(RunDigest::tests).orElse(List.of());
            List<TestDigest> fast = DigestReader.readWithoutSteps(file, problem -> {}, cache)
                    .map(RunDigest::tests)
                    .orElse(List.of());
            assertThat(fast).as(new String(mutated, StandardCharsets.UTF_8)).isEqualTo(slow);
        }
    }

    @Test
    void a_newer_file_is_read_as_far_as_it_is_understood_and_a_foreign_one_is_not() throws Exception {
        String text = new String(unpacked(), StandardCharsets.UTF_8);
        List<Problem> problems = new ArrayList<>();

        pack(text.replace("\"verbale-digest\":1", "\"verbale-digest\":9,\"weather\":{\"a\":[1]}")
                .replace("[\"failed\",1,1,0]", "[\"wobbled\",1,1,0]\n{\"later\":[{\"x\":1}]}")
                .getBytes(StandardCharsets.UTF_8));
        RunDigest newer = DigestReader.read(file, problems::add).orElseThrow();
        assertThat(newer.tests().get(1).outcome().word()).isEqualTo("wobbled");
        assertThat(problems).singleElement().asString().contains("has format 9 and this reader knows 1");

        for (String foreign : List.of("", "\n", "[1]", "{}", "{\"run\":\"x\"}", "{\"verbale-digest\":1}", "<html>")) {
            problems.clear();
            pack((foreign + "\n").getBytes(StandardCharsets.UTF_8));
            assertThat(DigestReader.read(file, problems::add)).as(foreign).isEmpty();
        }
    }

    private byte[] unpacked() throws Exception {
        try (var in = new GZIPInputStream(new ByteArrayInputStream(Files.readAllBytes(file)))) {
            return in.readAllBytes();
        }
    }

    private void pack(byte[] bytes) throws Exception {
        var packed = new ByteArrayOutputStream();
        try (var out = new GZIPOutputStream(packed)) {
            out.write(bytes);
        }
        Files.write(file, packed.toByteArray());
    }
}
