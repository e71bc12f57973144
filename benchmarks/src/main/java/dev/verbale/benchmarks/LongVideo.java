package dev.verbale.benchmarks;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.video.ScreenRecorder;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.file.Path;
import java.util.Locale;
import javax.imageio.ImageIO;

/** Ten minutes of video, six frames a second of 1280 by 800, in a heap of 64 MB: handed in as fast as they are taken. */
public final class LongVideo {

    private static final int FRAMES = 3_600;
    private static final long MICROS_A_FRAME = 166_667;

    private LongVideo() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments.length == 0) {
            Process jvm = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Xmx64m",
                            "-Djava.awt.headless=true",
                            "-Dverbale.video=all",
                            "-Dverbale.summary-line=false",
                            "-Dverbale.root=" + Sinks.folder(),
                            "-cp",
                            System.getProperty("java.class.path"),
                            LongVideo.class.getName(),
                            "inside")
                    .inheritIO()
                    .start();
            System.exit(jvm.waitFor());
        }
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("video", "video").build());
        var screenRecorder = new ScreenRecorder(recorder);
        screenRecorder.use(recorder.currentTest());
        byte[][] images = images();
        long at = recorder.now();
        long from = System.nanoTime();
        for (int i = 0; i < FRAMES; i++) {
            screenRecorder.frame(images[i % images.length], at + i * MICROS_A_FRAME);
            if (i % 900 == 899)
                System.out.printf(Locale.ROOT, "%d min: %d MB in use%n", (i + 1) / 360, usedMegabytes());
        }
        System.out.printf(
                Locale.ROOT,
                "%d frames of %d kB taken in %.1f s%n",
                FRAMES,
                images[0].length / 1_000,
                (System.nanoTime() - from) / 1e9);
        screenRecorder.stop();
        screenRecorder.ended(test);
    }

    private static byte[][] images() throws Exception {
        var images = new byte[24][];
        for (int i = 0; i < images.length; i++) {
            var image = new BufferedImage(1280, 800, BufferedImage.TYPE_INT_RGB);
            Graphics2D graphics = image.createGraphics();
            graphics.setColor(Color.WHITE);
            graphics.fillRect(0, 0, 1280, 800);
            graphics.setColor(Color.DARK_GRAY);
            for (int line = 0; line < 40; line++) graphics.drawString("Monday waters Ada ".repeat(10), 20, 20 * line);
            graphics.fillRect(40 * i, 300, 120, 120);
            var out = new ByteArrayOutputStream();
            ImageIO.write(image, "jpg", out);
            images[i] = out.toByteArray();
        }
        return images;
    }

    private static long usedMegabytes() {
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        return (runtime.totalMemory() - runtime.freeMemory()) >> 20;
    }
}
