package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import javax.swing.JComponent;
import javax.swing.JLabel;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A window of a desktop application gives evidence and has its video by the same means as a browser, without a display. */
@Tag("newer-jdk")
class DesktopTest {

    /** As the guide shows it. */
    private record RecordedWindow(JComponent window, ScreenRecorder screenRecorder) implements EvidenceSource {

        static RecordedWindow of(JComponent window) {
            var recorded = new RecordedWindow(window, new ScreenRecorder(AdapterRecorder.current()));
            Verbale.register(recorded);
            recorded.screenRecorder.use(AdapterRecorder.current().currentTest());
            return recorded;
        }

        void changed() throws IOException {
            screenRecorder.frame(image());
        }

        private byte[] image() throws IOException {
            var image = new BufferedImage(window.getWidth(), window.getHeight(), BufferedImage.TYPE_INT_RGB);
            window.paint(image.createGraphics());
            var png = new ByteArrayOutputStream();
            ImageIO.write(image, "png", png);
            return png.toByteArray();
        }

        @Override
        public String name() {
            return "window";
        }

        @Override
        public void capture(Evidence evidence) throws IOException {
            evidence.attach("window", AttachmentKind.SCREENSHOT, image(), MediaType.PNG);
            screenRecorder.failed(evidence);
        }

        @Override
        public void ended(Scope scope) {
            screenRecorder.ended(scope);
        }
    }

    @Test
    void a_failing_test_has_the_window_and_its_video() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("scale", "scale").build());
        var scale = new JLabel("0 g");
        scale.setSize(160, 60);
        RecordedWindow window = RecordedWindow.of(scale);
        for (int grams = 1; grams < 5; grams++) {
            scale.setText(grams + " g");
            window.changed();
        }
        recorder.endTest(test, TestEnd.threw(new AssertionError("13 g of basil")));

        assertThat(completed("scale"))
                .extracting(entry -> ((Entry.AttachmentEntry) entry).kind())
                .containsExactly(AttachmentKind.SCREENSHOT, AttachmentKind.VIDEO);
    }

    /** What is in the test {@code key}, once its video is encoded: that goes on beside the tests. */
    private static List<Entry> completed(String key) throws Exception {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        while (true) {
            List<Entry> entries = RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                    .filter(one -> one.key().equals(key))
                    .findFirst()
                    .orElseThrow()
                    .entries();
            boolean pending = entries.stream().anyMatch(entry -> entry instanceof Entry.PendingEntry);
            if (!pending || System.nanoTime() > until) return entries;
        }
    }
}
