package dev.verbale.export;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Base64;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;

/** A screenshot as small as a mail shows it, inside of its HTML. */
final class SmallImage {

    private static final int WIDTH = 480;

    /** Of one that says it is larger, whoever made it wants a reader's memory. */
    private static final long MAX_PIXELS = 40_000_000;

    private SmallImage() {}

    /** Such as {@code data:image/jpeg;base64,…}; null where {@code bytes} are no image that can be read. */
    static @Nullable String address(byte[] bytes) {
        try {
            BufferedImage image = read(bytes);
            if (image == null) return null;
            var out = new ByteArrayOutputStream();
            if (!ImageIO.write(scaled(image), "jpeg", out)) return null;
            return "data:image/jpeg;base64," + Base64.getEncoder().encodeToString(out.toByteArray());
        } catch (IOException | RuntimeException odd) { // readers of images throw whatever they like over broken ones
            return null;
        }
    }

    private static @Nullable BufferedImage read(byte[] bytes) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) return null;
            ImageReader reader = readers.next();
            try {
                reader.setInput(in);
                long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
                return pixels > MAX_PIXELS ? null : reader.read(0);
            } finally {
                reader.dispose();
            }
        }
    }

    private static BufferedImage scaled(BufferedImage image) {
        int width = Math.min(WIDTH, image.getWidth());
        int height = Math.max(1, (int) ((long) image.getHeight() * width / image.getWidth()));
        var small = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D graphics = small.createGraphics();
        graphics.setColor(Color.WHITE);
        graphics.fillRect(0, 0, width, height);
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        graphics.drawImage(image, 0, 0, width, height, null);
        graphics.dispose();
        return small;
    }
}
