package dev.verbale.video;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/** What a video asks of its frames. */
final class Jpeg {

    private Jpeg() {}

    /** {@code image} as it is where it is a JPEG, and made one where it is a PNG or another that the JDK can read. */
    static byte[] of(byte[] image) throws IOException {
        if (image.length > 2 && (image[0] & 0xff) == 0xff && (image[1] & 0xff) == 0xd8) return image;
        BufferedImage read = ImageIO.read(new ByteArrayInputStream(image));
        if (read == null) throw new IOException("not an image that can be read: " + image.length + " bytes");
        var opaque = new BufferedImage(read.getWidth(), read.getHeight(), BufferedImage.TYPE_INT_RGB);
        opaque.getGraphics().drawImage(read, 0, 0, null);
        var out = new ByteArrayOutputStream();
        ImageIO.write(opaque, "jpg", out);
        return out.toByteArray();
    }

    /** Width and height in pixels, from the frame header (ITU-T T.81, B.2.2). */
    static int[] size(byte[] jpeg) throws IOException {
        int at = 2;
        while (at + 9 < jpeg.length && (jpeg[at] & 0xff) == 0xff) {
            int marker = jpeg[at + 1] & 0xff;
            boolean frame = marker >= 0xc0 && marker <= 0xcf && marker != 0xc4 && marker != 0xc8 && marker != 0xcc;
            if (frame) return new int[] {two(jpeg, at + 7), two(jpeg, at + 5)};
            at += 2 + two(jpeg, at + 2);
        }
        throw new IOException("a JPEG without a frame header");
    }

    private static int two(byte[] bytes, int at) {
        return (bytes[at] & 0xff) << 8 | bytes[at + 1] & 0xff;
    }
}
