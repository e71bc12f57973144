package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whether something looks as it did. */
class VisualCheckTest {

    @TempDir
    Path folder;

    @Test
    void images_that_are_alike_within_the_limits_pass() throws Exception {
        Path expected = Files.write(folder.resolve("plan.png"), image(100, Color.GREEN, 0));

        VisualCheck.that("plan", image(100, new Color(0, 240, 10), 0), expected).holds();
        VisualCheck.that("plan", image(100, Color.GREEN, 20), expected)
                .within(0, 0.05)
                .holds();
        assertThatThrownBy(() -> VisualCheck.that("plan", image(100, Color.GREEN, 20), expected)
                        .within(0, 0.03)
                        .holds())
                .isInstanceOf(AssertionError.class)
                .hasMessageContaining("400 of 10000 pixels differ (4.00 %), and 3.00 % are allowed");
    }

    @Test
    void what_only_one_image_has_differs_and_is_red_in_their_difference() throws Exception {
        ImageComparison comparison =
                ImageComparison.of(image(image(100, Color.WHITE, 0)), image(image(90, Color.WHITE, 10)), 0);

        assertThat(comparison.pixels()).isEqualTo(10_000);
        assertThat(comparison.differing()).isEqualTo(100 + 100 * 100 - 90 * 90);
        assertThat(comparison.difference().getRGB(5, 5) & 0xffffff).isEqualTo(0xd0021b);
        assertThat(comparison.difference().getRGB(50, 50) & 0xffffff).isEqualTo(0xffffff);
    }

    @Test
    void a_failing_check_keeps_both_images_and_their_difference() throws Exception {
        Path expected = Files.write(folder.resolve("plan.png"), image(100, Color.GREEN, 0));
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("looks", "looks").tags(java.util.List.of()).build());
        recorder.gatherChecks();
        VisualCheck.that("plan", image(100, Color.GREEN, 30), expected).holds();
        VisualCheck.that("none", image(10, Color.GREEN, 0), folder.resolve("none.png"))
                .holds();
        recorder.endTest(test, TestEnd.passed());

        var entries = RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals("looks"))
                .findFirst()
                .orElseThrow()
                .entries();
        assertThat(entries.stream()
                        .filter(Entry.AttachmentEntry.class::isInstance)
                        .map(one -> ((Entry.AttachmentEntry) one).name()))
                .containsExactly("plan: expected", "plan: shown", "plan: difference", "none: shown");
        assertThat(entries.stream()
                        .filter(Entry.CheckEntry.class::isInstance)
                        .map(one -> ((Entry.CheckEntry) one).failure().message()))
                .anyMatch(message -> message.contains("run once with -Dverbale.visual.update=true"));
    }

    private static BufferedImage image(byte[] png) throws IOException {
        return ImageIO.read(new java.io.ByteArrayInputStream(png));
    }

    /** A square with a black square of {@code corner} pixels in its corner. */
    private static byte[] image(int size, Color colour, int corner) throws IOException {
        var image = new BufferedImage(size, size, BufferedImage.TYPE_INT_RGB);
        var graphics = image.createGraphics();
        graphics.setColor(colour);
        graphics.fillRect(0, 0, size, size);
        graphics.setColor(Color.BLACK);
        graphics.fillRect(0, 0, corner, corner);
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }
}
