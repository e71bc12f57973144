package dev.verbale.benchmarks;

import dev.verbale.MediaType;
import dev.verbale.Verbale;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;

/** A million steps in one test, and an attachment of two gigabytes, in a JVM with a heap of 64 MB. */
public final class SmallHeap {

    private static final int STEPS = 1_000_000;
    private static final long ATTACHMENT = 2L << 30;

    private SmallHeap() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments.length == 0) {
            Process jvm = new ProcessBuilder(List.of(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Xmx64m",
                            "-Dverbale.root=" + Sinks.folder(),
                            "-cp",
                            System.getProperty("java.class.path"),
                            SmallHeap.class.getName(),
                            "inside"))
                    .redirectErrorStream(true)
                    .start();
            System.out.print(new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
            System.exit(jvm.waitFor());
        }
        long from = System.nanoTime();
        Verbale.step("all", () -> {
            for (int i = 0; i < STEPS; i++) Verbale.step("step " + (i & 1023), () -> {});
        });
        System.out.printf(
                "%,d steps in %.1f s, %d MB in use%n", STEPS, (System.nanoTime() - from) / 1e9, usedMegabytes());
        from = System.nanoTime();
        Verbale.attach("large.bin", new Zeros(ATTACHMENT), MediaType.UNKNOWN);
        System.out.printf(
                "%,d bytes attached in %.1f s, %d MB in use%n",
                ATTACHMENT, (System.nanoTime() - from) / 1e9, usedMegabytes());
    }

    private static long usedMegabytes() {
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        return (runtime.totalMemory() - runtime.freeMemory()) >> 20;
    }

    /** So many zeros. */
    private static final class Zeros extends InputStream {
        private long left;

        Zeros(long count) {
            left = count;
        }

        @Override
        public int read() {
            return left-- > 0 ? 0 : -1;
        }

        @Override
        public int read(byte[] into, int from, int length) {
            if (left <= 0) return -1;
            int given = (int) Math.min(left, length);
            left -= given;
            return given;
        }
    }
}
