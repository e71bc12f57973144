package dev.verbale.internal;

import dev.verbale.recorder.Recorder;
import java.awt.image.RenderedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/** Pictures in memory as papers. Apart from the facade, so that nobody loads a toolkit who keeps no picture. */
public final class ImagePaper {

    private ImagePaper() {}

    public static void attach(Recorder recorder, String name, RenderedImage image) {
        recorder.attach(
                name,
                () -> {
                    if (image == null) return null;
                    var png = new ByteArrayOutputStream();
                    if (!ImageIO.write(image, "png", png)) throw new IOException("nobody here encodes such a picture");
                    return new ByteArrayInputStream(png.toByteArray());
                },
                "image/png");
    }
}
