package dev.verbale.internal;

import dev.verbale.recorder.Recorder;
import java.awt.image.RenderedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/** Pictures in memory as papers. Apart from the facade, so that nobody loads a toolkit who keeps no picture. */
public final class ImagePaper {

    private ImagePaper() {}

    public static void attach(Recorder recorder, String name, RenderedImage image) {
        var png = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", png);
        } catch (IOException | RuntimeException broken) {
            recorder.note("The picture " + name + " could not be encoded: " + NoteText.shown(broken));
            return;
        }
        recorder.attach(name, png.toByteArray(), "image/png");
    }
}
