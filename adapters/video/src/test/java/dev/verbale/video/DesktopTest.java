package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Verbale;
import dev.verbale.event.PaperKept;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import javax.imageio.ImageIO;
import javax.swing.JComponent;
import javax.swing.JLabel;
import org.junit.jupiter.api.Test;

/** A window of a desktop application gives evidence and is filmed by the same means as a browser, without a display. */
class DesktopTest {

    /** As the guide shows it. */
    private record FilmedWindow(JComponent window, Camera camera) implements EvidenceSource {

        static FilmedWindow of(JComponent window) {
            var filmed = new FilmedWindow(window, new Camera(Recorder.current()));
            Verbale.announce(filmed);
            filmed.camera.use(Recorder.current().owner());
            return filmed;
        }

        void changed() throws IOException {
            camera.picture(picture());
        }

        private byte[] picture() throws IOException {
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
        public void take(Evidence evidence) throws IOException {
            evidence.paper("window", PaperKept.SCREENSHOT, picture(), "image/png");
            camera.failed(evidence);
        }

        @Override
        public void ended(Scope scope) {
            camera.ended(scope);
        }
    }

    @Test
    void a_failing_test_has_the_window_and_its_film() throws Exception {
        Recorder recorder = Recorder.current();
        Scope test = recorder.startTest(recorder.run(), new Identity("scale", "scale", null, null, List.of()));
        var scale = new JLabel("0 g");
        scale.setSize(160, 60);
        FilmedWindow window = FilmedWindow.of(scale);
        for (int grams = 1; grams < 5; grams++) {
            scale.setText(grams + " g");
            window.changed();
        }
        recorder.endTest(test, Ending.threw(new AssertionError("13 g of basil")));

        assertThat(RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                        .filter(one -> one.key().equals("scale"))
                        .findFirst()
                        .orElseThrow()
                        .entries())
                .extracting(entry -> ((Entry.PaperEntry) entry).kind())
                .containsExactly(PaperKept.SCREENSHOT, PaperKept.VIDEO);
    }
}
