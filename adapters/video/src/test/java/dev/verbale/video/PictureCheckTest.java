package dev.verbale.video;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
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
class PictureCheckTest {

    @TempDir
    Path folder;

    @Test
    void pictures_that_are_alike_within_the_limits_pass() throws Exception {
        Path expected = Files.write(folder.resolve("plan.png"), picture(100, Color.GREEN, 0));

        PictureCheck.that("plan", picture(100, new Color(0, 240, 10), 0), expected)
                .holds();
        PictureCheck.that("plan", picture(100, Color.GREEN, 20), expected)
                .within(0, 0.05)
                .holds();
        assertThatThrownBy(() -> PictureCheck.that("plan", picture(100, Color.GREEN, 20), expected)
                        .within(0, 0.03)
                        .holds())
                .isInstanceOf(AssertionError.class)
                .hasMessageContaining("400 of 10000 pixels differ, 4.00 %; at most 3.00 % may");
    }

    @Test
    void what_only_one_picture_has_differs_and_is_red_in_their_difference() throws Exception {
        PictureComparison comparison =
                PictureComparison.of(image(picture(100, Color.WHITE, 0)), image(picture(90, Color.WHITE, 10)), 0);

        assertThat(comparison.pixels()).isEqualTo(10_000);
        assertThat(comparison.differing()).isEqualTo(100 + 100 * 100 - 90 * 90);
        assertThat(comparison.difference().getRGB(5, 5) & 0xffffff).isEqualTo(0xd0021b);
        assertThat(comparison.difference().getRGB(50, 50) & 0xffffff).isEqualTo(0xffffff);
    }

    @Test
    void a_failing_check_keeps_both_pictures_and_their_difference() throws Exception {
        Path expected = Files.write(folder.resolve("plan.png"), picture(100, Color.GREEN, 0));
        Recorder recorder = Recorder.current();
        Scope test =
                recorder.startTest(recorder.run(), new Identity("looks", "looks", null, null, java.util.List.of()));
        recorder.gatherChecks();
        PictureCheck.that("plan", picture(100, Color.GREEN, 30), expected).holds();
        PictureCheck.that("none", picture(10, Color.GREEN, 0), folder.resolve("none.png"))
                .holds();
        recorder.endTest(test, Ending.passed());

        var entries = RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals("looks"))
                .findFirst()
                .orElseThrow()
                .entries();
        assertThat(entries.stream().filter(Entry.PaperEntry.class::isInstance).map(one -> ((Entry.PaperEntry) one)
                        .name()))
                .containsExactly("plan: expected", "plan: shown", "plan: difference", "none: shown");
        assertThat(entries.stream()
                        .filter(Entry.CheckEntry.class::isInstance)
                        .map(one -> ((Entry.CheckEntry) one).failure().message()))
                .anyMatch(message -> message.contains("run once with -Dverbale.pictures.update=true"));
    }

    private static BufferedImage image(byte[] png) throws IOException {
        return ImageIO.read(new java.io.ByteArrayInputStream(png));
    }

    /** A square with a black square of {@code corner} pixels in its corner. */
    private static byte[] picture(int size, Color colour, int corner) throws IOException {
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
