package dev.verbale.video;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/** What a film asks of its pictures. */
final class Jpeg {

    private Jpeg() {}

    /** {@code picture} as it is where it is a JPEG, and made one where it is a PNG or another that the JDK can read. */
    static byte[] of(byte[] picture) throws IOException {
        if (picture.length > 2 && (picture[0] & 0xff) == 0xff && (picture[1] & 0xff) == 0xd8) return picture;
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(picture));
        if (image == null) throw new IOException("not a picture that can be read: " + picture.length + " bytes");
        var opaque = new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB);
        opaque.getGraphics().drawImage(image, 0, 0, null);
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
