package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Pages of runs in which something went wrong, at whatever byte; the same whether tests are written while the run is read, or after it
 * was read whole.
 */
class MutatedPagesTest {

    @TempDir
    Path root;

    @Test
    void a_page_is_written_of_whatever_is_left_of_a_run() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("run").withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("k", "n")
                        .className("sample.T")
                        .methodName("n")
                        .tags(List.of("a"))
                        .build());
        recorder.startStep("open").passed();
        recorder.data("plot", 12);
        recorder.attach("rota.csv", "day\nMon\n".getBytes(StandardCharsets.UTF_8), MediaType.CSV);
        recorder.exchange("GET", "http://orto.example/plots/12")
                .status(200)
                .responseHeader("Content-Type", "application/json")
                .responseBody("{\"plot\":12}".getBytes(StandardCharsets.UTF_8), "application/json")
                .ended();
        recorder.endTest(test, TestEnd.threw(new AssertionError("weeds")));
        Scope passing = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("p", "n")
                        .className("sample.T")
                        .methodName("n")
                        .build());
        recorder.data("plot", 13);
        recorder.startStep("close").passed();
        recorder.endTest(passing, TestEnd.passed());
        Path journal = root.resolve("run/journals/worker-1.jsonl");
        byte[] whole = Files.readAllBytes(journal);
        var random = new Random(20261126);
        for (int i = 0; i < (Boolean.getBoolean("verbale.night") ? 300 : 30); i++) {
            byte[] bytes = whole.clone();
            for (int times = 1 + random.nextInt(4); times > 0; times--)
                bytes[random.nextInt(bytes.length)] = (byte) "0123456789-\"{}[],:\\\nx".charAt(random.nextInt(21));
            Files.write(journal, bytes);

            Page.Written written = Page.write(
                    new RunFolder(root.resolve("run")), root.resolve("page"), PageOptions.PLAIN, any -> true);
            Run run = RunReader.read(root.resolve("run"));
            Path index = Page.write(run, root.resolve("same"));

            assertThat(written.index()).isNotNull();
            assertThat(written.run().tests())
                    .extracting(TestResult::id)
                    .containsExactlyElementsOf(
                            run.tests().stream().map(TestResult::id).toList());
            if (hasOneBeginning(bytes)) assertSame(index.getParent(), root.resolve("page"));
        }
    }

    /** Times are counted from where a journal begins; who reads tests one by one knows no later beginning. */
    private static boolean hasOneBeginning(byte[] journal) {
        String text = new String(journal, StandardCharsets.ISO_8859_1);
        int first = text.indexOf("journal-opened");
        return first >= 0 && first < text.indexOf('\n') && text.indexOf("journal-opened", first + 1) < 0;
    }

    private static void assertSame(Path one, Path other) throws IOException {
        List<String> files = Files.readAllLines(one.resolve("data/files.txt"));
        assertThat(Files.readAllLines(other.resolve("data/files.txt"))).isEqualTo(files);
        for (String file : files)
            assertThat(Files.mismatch(one.resolve(file), other.resolve(file)))
                    .as(file)
                    .isEqualTo(-1);
    }
}
