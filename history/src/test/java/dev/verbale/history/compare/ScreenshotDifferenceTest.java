package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ScreenshotDifferenceTest {

    @TempDir
    Path folder;

    private Path image(String name, int width, int height, int button) throws Exception {
        var drawn = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D graphics = drawn.createGraphics();
        graphics.setColor(Color.WHITE);
        graphics.fillRect(0, 0, width, height);
        graphics.setColor(Color.BLUE);
        graphics.fillRect(button, 10, 10, 10);
        graphics.dispose();
        Path file = folder.resolve(name);
        ImageIO.write(drawn, "png", file.toFile());
        return file;
    }

    @Test
    void what_moved_stands_out_and_what_stayed_is_faint() throws Exception {
        ScreenshotDifference difference = ScreenshotDifference.of(
                        image("a.png", 100, 50, 10), image("b.png", 100, 50, 40))
                .orElseThrow();

        assertThat(difference.share()).isCloseTo(200.0 / 5_000, within(1e-9));
        assertThat(difference.image().getRGB(12, 12))
                .isEqualTo(difference.image().getRGB(42, 12));
        assertThat(difference.image().getRGB(0, 0)).isEqualTo(Color.WHITE.getRGB());
        assertThat(ScreenshotDifference.of(image("a.png", 100, 50, 10), image("c.png", 100, 50, 10))
                        .orElseThrow()
                        .share())
                .isZero();
    }

    @Test
    void images_of_other_sizes_are_compared_as_far_as_both_go() throws Exception {
        ScreenshotDifference difference = ScreenshotDifference.of(
                        image("a.png", 100, 50, 10), image("b.png", 50, 100, 10))
                .orElseThrow();

        assertThat(difference.image().getWidth()).isEqualTo(100);
        assertThat(difference.image().getHeight()).isEqualTo(100);
        assertThat(difference.share()).isCloseTo(0.5, within(1e-9));
    }

    @Test
    void what_is_no_image_or_would_be_endless_is_none() throws Exception {
        Path good = image("a.png", 100, 50, 10);
        byte[] bytes = Files.readAllBytes(good);
        Path text = Files.writeString(folder.resolve("text.png"), "no image");
        Path torn = Files.write(folder.resolve("torn.png"), Arrays.copyOf(bytes, 40));
        Path endless = Files.write(folder.resolve("endless.png"), withSize(bytes, 1_000_000, 1_000_000));

        for (Path bad : new Path[] {text, torn, endless}) {
            assertThat(ScreenshotDifference.of(good, bad)).as(bad.toString()).isEmpty();
            assertThat(ScreenshotDifference.of(bad, good)).as(bad.toString()).isEmpty();
        }
    }

    /** The same, where its head says that it is of this size. */
    private static byte[] withSize(byte[] png, int width, int height) throws Exception {
        var head = new ByteArrayOutputStream();
        head.write(png, 12, 17);
        byte[] chunk = head.toByteArray();
        ByteBuffer.wrap(chunk).putInt(4, width).putInt(8, height);
        var crc = new CRC32();
        crc.update(chunk);
        byte[] changed = png.clone();
        System.arraycopy(chunk, 0, changed, 12, 17);
        ByteBuffer.wrap(changed).putInt(29, (int) crc.getValue());
        return changed;
    }
}
