package dev.verbale.history.compare;

import dev.verbale.journal.PlainFile;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.Optional;
import javax.imageio.ImageIO;

/**
 * Two screenshots of one place: what is the same is faint, what is not stands out.
 *
 * @param image as large as both together
 * @param share of its points that are not the same, from 0 to 1
 * @since 0.2.0
 */
public record ScreenshotDifference(BufferedImage image, double share) {

    private static final int LARGEST_FILE = 50_000_000;
    private static final long LARGEST_IN_POINTS = 100_000_000;
    private static final int STANDS_OUT = 0xD0_2F_5B;
    private static final int OUTSIDE = 0xB9_B2_A6;

    /** Colours that nobody tells apart: an edge that a browser smoothed otherwise. */
    private static final int SAME = 24;

    /** Empty where one of them is no image that can be read. */
    public static Optional<ScreenshotDifference> of(Path before, Path after) throws IOException {
        BufferedImage then = read(before);
        BufferedImage now = read(after);
        return then == null || now == null ? Optional.empty() : Optional.of(of(then, now));
    }

    private static @org.jspecify.annotations.Nullable BufferedImage read(Path file) throws IOException {
        byte[] bytes = PlainFile.bytes(file, LARGEST_FILE);
        ImageIO.setUseCache(false);
        try (var in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            var readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) return null;
            var reader = readers.next();
            try {
                reader.setInput(in);
                // Before it is unpacked: a small file may be an image of any size.
                if ((long) reader.getWidth(0) * reader.getHeight(0) > LARGEST_IN_POINTS) return null;
                return reader.read(0);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException broken) {
            return null;
        }
    }

    private static ScreenshotDifference of(BufferedImage then, BufferedImage now) {
        int width = Math.max(then.getWidth(), now.getWidth());
        int height = Math.max(then.getHeight(), now.getHeight());
        var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        long different = 0;
        for (int y = 0; y < height; y++)
            for (int x = 0; x < width; x++) {
                boolean inThen = x < then.getWidth() && y < then.getHeight();
                boolean inNow = x < now.getWidth() && y < now.getHeight();
                if (!inThen && !inNow) {
                    image.setRGB(x, y, OUTSIDE);
                } else if (inThen && inNow && isSame(then.getRGB(x, y), now.getRGB(x, y))) {
                    image.setRGB(x, y, faint(now.getRGB(x, y)));
                } else {
                    image.setRGB(x, y, STANDS_OUT);
                    different++;
                }
            }
        return new ScreenshotDifference(image, (double) different / ((long) width * height));
    }

    /**
     * Writes it as PNG.
     *
     * @throws IOException where it cannot be written
     */
    public void writePng(OutputStream out) throws IOException {
        ImageIO.write(image, "png", out);
    }

    private static boolean isSame(int one, int other) {
        for (int shift = 0; shift <= 16; shift += 8)
            if (Math.abs((one >> shift & 0xFF) - (other >> shift & 0xFF)) > SAME) return false;
        return true;
    }

    private static int faint(int colour) {
        int faint = 0;
        for (int shift = 0; shift <= 16; shift += 8) faint |= (255 - (255 - (colour >> shift & 0xFF)) / 4) << shift;
        return faint;
    }
}
