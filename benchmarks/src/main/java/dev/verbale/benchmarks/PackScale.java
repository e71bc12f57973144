package dev.verbale.benchmarks;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.FolderTree;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Stream;

/**
 * A large run as one file: packed and read again by the command line in a heap of 64 MB, beside a copy of its files. Argument: gigabytes of
 * attachments, which nothing makes smaller, as videos are.
 */
public final class PackScale {

    private static final int PIECE = 250_000_000;

    private PackScale() {}

    public static void main(String[] arguments) throws Exception {
        int gigabytes = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 5;
        Path folder = Files.createTempDirectory("pack-scale");
        try {
            record(folder.resolve("runs"), gigabytes * 4);
            Path run;
            try (Stream<Path> runs = Files.list(folder.resolve("runs"))) {
                run = runs.findFirst().orElseThrow();
            }
            Path pack = folder.resolve("run.zip");
            long copied = copy(run, folder.resolve("copy"));
            long packed = verbale("pack", run.toString(), "--to", pack.toString());
            long read = verbale("failures", pack.toString());
            double megabytes = Files.size(pack) / 1e6;
            System.out.printf(Locale.ROOT, "%,.0f MB in a heap of 64 MB%n", megabytes);
            System.out.printf(Locale.ROOT, "copied   %6.1f s  %,6.0f MB/s%n", copied / 1e9, megabytes * 1e9 / copied);
            System.out.printf(Locale.ROOT, "packed   %6.1f s  %,6.0f MB/s%n", packed / 1e9, megabytes * 1e9 / packed);
            System.out.printf(Locale.ROOT, "its failures read %6.1f s%n", read / 1e9);
        } finally {
            FolderTree.delete(folder);
        }
    }

    private static void record(Path root, int pieces) {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        for (int i = 0; i < pieces; i++) {
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("test " + i, "test " + i).build());
            recorder.attach("video", new Noise(i, PIECE), MediaType.PNG);
            recorder.endTest(test, i % 4 == 0 ? TestEnd.threw(new AssertionError("no seeds")) : TestEnd.passed());
        }
    }

    private static long copy(Path from, Path to) throws IOException {
        long began = System.nanoTime();
        try (Stream<Path> all = Files.walk(from)) {
            for (Path one : all.toList()) {
                Path target = to.resolve(from.relativize(one));
                if (Files.isDirectory(one)) Files.createDirectories(target);
                else Files.copy(one, target);
            }
        }
        return System.nanoTime() - began;
    }

    private static long verbale(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx64m",
                "-XX:+UseSerialGC",
                "-jar",
                StartedHub.jar().toString()));
        command.addAll(List.of(arguments));
        long began = System.nanoTime();
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) throw new IllegalStateException(output);
        return System.nanoTime() - began;
    }

    /** Bytes that no two pieces share, and that nothing makes smaller. */
    private static final class Noise extends InputStream {
        private final byte[] block = new byte[1 << 20];
        private long left;

        Noise(int seed, long count) {
            new Random(seed).nextBytes(block);
            left = count;
        }

        @Override
        public int read() {
            return left-- > 0 ? block[(int) (left & 0xfffff)] & 0xff : -1;
        }

        @Override
        public int read(byte[] into, int from, int length) {
            if (left <= 0) return -1;
            int at = (int) (left & 0xfffff);
            int given = (int) Math.min(left, Math.min(length, block.length - at));
            System.arraycopy(block, at, into, from, given);
            left -= given;
            return given;
        }
    }
}
