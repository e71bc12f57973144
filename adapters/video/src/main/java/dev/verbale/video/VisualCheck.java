package dev.verbale.video;

import dev.verbale.MediaType;
import dev.verbale.Verbale;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.AttachmentKind;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import javax.imageio.ImageIO;

/**
 * A check of the test that something looks as it did. Where it does not, both images and their difference are attached.
 *
 * <pre>{@code
 * VisualCheck.that("plan of the plots", screenshot, Path.of("src/test/images/plan.png")).holds();
 * }</pre>
 *
 * <p>With the setting {@code verbale.visual.update} the image is written to the file instead, whatever is there.
 *
 * @param name what a reader knows the check by
 * @param shown a PNG or a JPEG
 * @param expected the file with the image that it should look like
 * @param tolerance how far off each of a pixel's colours may be, from 0 to 255
 * @param share how many of the pixels may be further off, from 0 to 1
 * @since 0.2.0
 */
public record VisualCheck(String name, byte[] shown, Path expected, int tolerance, double share) {

    /** One that allows what fonts and edges need: 24 of 255, and one pixel in a thousand beyond it. */
    public static VisualCheck that(String name, byte[] shown, Path expected) {
        return new VisualCheck(name, shown, expected, 24, 0.001);
    }

    /** This check with other limits. */
    public VisualCheck within(int tolerance, double share) {
        return new VisualCheck(name, shown, expected, tolerance, share);
    }

    /** Makes the check: with {@link Verbale#check}, so that the test goes on and fails at its end. */
    public void holds() {
        AdapterRecorder recorder = AdapterRecorder.current();
        if (recorder.isOn(VideoAdapter.UPDATE)) update(recorder);
        else Verbale.check(name, () -> look(recorder));
    }

    private void update(AdapterRecorder recorder) {
        try {
            if (expected == null) throw new IOException("there is no file: it is null");
            if (expected.getParent() != null) Files.createDirectories(expected.getParent());
            Files.write(expected, png(read(shown, "what is shown")));
            recorder.log("The image of '" + name + "' was written to " + expected);
        } catch (IOException unwritten) {
            throw new IllegalStateException("The image could not be written to " + expected, unwritten);
        }
    }

    /** What cannot be compared does not look like what is expected. */
    private void look(AdapterRecorder recorder) {
        try {
            compare(recorder);
        } catch (IOException unreadable) {
            throw new AssertionError("The images cannot be compared: " + unreadable.getMessage(), unreadable);
        }
    }

    private void compare(AdapterRecorder recorder) throws IOException {
        BufferedImage now = read(shown, "what is shown");
        if (expected == null) throw new IOException("there is no file to compare with: it is null");
        if (!Files.isRegularFile(expected)) {
            attach(recorder, name + ": shown", png(now));
            throw new AssertionError("There is no image " + expected.toAbsolutePath() + " to compare with. If what is"
                    + " shown is right, run once with -Dverbale.visual.update=true");
        }
        BufferedImage before = read(Files.readAllBytes(expected), expected.toString());
        ImageComparison comparison = ImageComparison.of(before, now, tolerance);
        if (comparison.share() <= share) return;
        attach(recorder, name + ": expected", png(before));
        attach(recorder, name + ": shown", png(now));
        attach(recorder, name + ": difference", png(comparison.difference()));
        throw new AssertionError(String.format(
                Locale.ROOT,
                "%d of %d pixels differ (%.2f %%), and %.2f %% are allowed. Expected %d x %d as in %s, shown %d x %d",
                comparison.differing(),
                comparison.pixels(),
                comparison.share() * 100,
                share * 100,
                before.getWidth(),
                before.getHeight(),
                expected,
                now.getWidth(),
                now.getHeight()));
    }

    private static BufferedImage read(byte[] bytes, String what) throws IOException {
        if (bytes == null) throw new IOException(what + " is not there: it is null");
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(bytes));
        if (image == null) throw new IOException(what + " is no image that can be read");
        return image;
    }

    private static byte[] png(BufferedImage image) throws IOException {
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static void attach(AdapterRecorder recorder, String name, byte[] png) {
        recorder.attach(
                recorder.currentScope(),
                name,
                AttachmentKind.SCREENSHOT,
                new ByteArrayInputStream(png),
                MediaType.PNG,
                0);
    }
}
