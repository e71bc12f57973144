package dev.verbale.video;

import dev.verbale.Verbale;
import dev.verbale.event.PaperKept;
import dev.verbale.recorder.Recorder;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;

/**
 * A check of the test that something looks as it did. Where it does not, both pictures and their difference are kept.
 *
 * <pre>{@code
 * PictureCheck.that("plan of the plots", screenshot, Path.of("src/test/pictures/plan.png")).holds();
 * }</pre>
 *
 * <p>With the setting {@code verbale.pictures.update} the picture is written to the file instead, whatever is there.
 *
 * @param name what a reader knows the check by
 * @param shown a PNG or a JPEG
 * @param expected the file with the picture that it should look like
 * @param tolerance how far off each of a pixel's colours may be, from 0 to 255
 * @param share how many of the pixels may be further off, from 0 to 1
 */
public record PictureCheck(String name, byte[] shown, Path expected, int tolerance, double share) {

    /** One that allows what fonts and edges need: 24 of 255, and one pixel in a thousand beyond it. */
    public static PictureCheck that(String name, byte[] shown, Path expected) {
        return new PictureCheck(name, shown, expected, 24, 0.001);
    }

    /** The same check with other limits. */
    public PictureCheck within(int tolerance, double share) {
        return new PictureCheck(name, shown, expected, tolerance, share);
    }

    /** Makes the check: with {@link Verbale#check}, so that the test goes on and fails at its end. */
    public void holds() {
        Recorder recorder = Recorder.current();
        if (recorder.setting("verbale.pictures.update", "false", List.of("true", "false"))
                .equals("true")) update(recorder);
        else Verbale.check(name, () -> compare(recorder));
    }

    private void update(Recorder recorder) {
        try {
            if (expected.getParent() != null) Files.createDirectories(expected.getParent());
            Files.write(expected, png(read(shown, "what is shown")));
            recorder.note("The picture of '" + name + "' was written to " + expected);
        } catch (IOException unwritten) {
            throw new IllegalStateException("The picture could not be written to " + expected, unwritten);
        }
    }

    private void compare(Recorder recorder) throws IOException {
        BufferedImage now = read(shown, "what is shown");
        if (!Files.isRegularFile(expected)) {
            keep(recorder, name + ": shown", png(now));
            throw new AssertionError("There is no picture " + expected.toAbsolutePath() + " to compare with. Is the one"
                    + " that is shown right, run once with -Dverbale.pictures.update=true");
        }
        BufferedImage before = read(Files.readAllBytes(expected), expected.toString());
        PictureComparison comparison = PictureComparison.of(before, now, tolerance);
        if (comparison.share() <= share) return;
        keep(recorder, name + ": expected", png(before));
        keep(recorder, name + ": shown", png(now));
        keep(recorder, name + ": difference", png(comparison.difference()));
        throw new AssertionError(String.format(
                Locale.ROOT,
                "%d of %d pixels differ, %.2f %%; at most %.2f %% may. Expected %d x %d as in %s, shown %d x %d",
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
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(bytes));
        if (image == null) throw new IOException(what + " is no picture that can be read");
        return image;
    }

    private static byte[] png(BufferedImage image) throws IOException {
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static void keep(Recorder recorder, String name, byte[] png) {
        recorder.paper(recorder.here(), name, PaperKept.SCREENSHOT, new ByteArrayInputStream(png), "image/png", 0);
    }
}
