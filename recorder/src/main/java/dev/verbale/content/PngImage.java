package dev.verbale.content;

import java.awt.image.RenderedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;

/** Images in memory as PNG. Apart from the author's calls, so that nobody loads a toolkit who attaches no image. */
public final class PngImage {

    private PngImage() {}

    /**
     * {@code image} encoded; null where there is none.
     *
     * @throws IOException where it cannot be
     */
    public static @Nullable InputStream of(@Nullable RenderedImage image) throws IOException {
        if (image == null) return null;
        var png = new ByteArrayOutputStream();
        if (!ImageIO.write(image, "png", png)) throw new IOException("nobody here encodes such an image");
        return new ByteArrayInputStream(png.toByteArray());
    }
}
