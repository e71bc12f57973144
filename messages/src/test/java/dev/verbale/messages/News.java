package dev.verbale.messages;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.rules.Rules;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.Triage;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import javax.imageio.ImageIO;

/** News of a run that was recorded. */
final class News {

    private News() {}

    /** @param failure null for a run in which all is good */
    static RunNews of(Path root, String name, String failure, String page) throws Exception {
        return of(root, name, failure, page, null);
    }

    /** @param before what it is compared with; null for nothing */
    static RunNews of(Path root, String name, String failure, String page, Run before) throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun(name).withSummaryLine(false));
        recorder.fact("branch", "main");
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("bed", "the bed").className("sample.BedTest").build());
        if (failure != null) {
            var png = new ByteArrayOutputStream();
            ImageIO.write(new BufferedImage(900, 500, BufferedImage.TYPE_INT_RGB), "png", png);
            recorder.register(new dev.verbale.EvidenceSource() {
                @Override
                public String name() {
                    return "page";
                }

                @Override
                public void capture(dev.verbale.Evidence evidence) {
                    evidence.attach("screenshot", "screenshot", png.toByteArray(), dev.verbale.MediaType.PNG);
                }
            });
        }
        AssertionError thrown = failure == null ? null : new AssertionError(failure);
        if (thrown != null) recorder.captureEvidence(thrown);
        recorder.endTest(test, failure == null ? TestEnd.passed() : TestEnd.threw(thrown));
        Files.writeString(
                root.resolve(name).resolve("journals/worker-1.jsonl"),
                "{\"event\":\"journal-ended\",\"at\":" + recorder.now() + ",\"missing\":0}\n",
                StandardOpenOption.APPEND);
        Run run = RunReader.read(recorder.folder());
        LocalDate day = LocalDate.of(2026, 12, 2);
        Comparison comparison = before == null ? null : Comparison.of(RunDigest.of(before), RunDigest.of(run), null);
        Today today = Today.of(run, Triage.of(run, List.of(), day), Rules.NONE, comparison, null);
        return new RunNews(run, TodayParts.of(today, day, ZoneOffset.UTC), page);
    }
}
