package dev.verbale.benchmarks;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;

/**
 * How large journals are, and what gzip makes of them: 10,000 tests that fail in a step with a hundred frames, 100,000 tests with a
 * million steps, and the run in a folder that is named. {@code bin/bench JournalBytes [RUN]}.
 */
public final class JournalBytes {

    private static final int FRAMES = 100;

    private JournalBytes() {}

    public static void main(String[] arguments) throws IOException {
        if (arguments.length > 0) measure("the run in " + arguments[0], Path.of(arguments[0]), 0);
        measure("failing tests with deep stacks", failing(10_000), 10_000);
        measure("tests of ten steps", steps(100_000), 100_000);
    }

    private static AdapterRecorder recorder() {
        return AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(Sinks.folder()).withSummaryLine(false));
    }

    private static Path failing(int tests) {
        AdapterRecorder recorder = recorder();
        for (int i = 0; i < tests; i++) {
            Scope test = start(recorder, i);
            Step step = recorder.startStep("Swap plot " + i + " with plot 7");
            Throwable thrown = deep(i, FRAMES);
            step.failed(thrown);
            recorder.endTest(test, TestEnd.threw(thrown));
        }
        return recorder.folder();
    }

    private static Scope start(AdapterRecorder recorder, int number) {
        String name = "waters_bed_" + number;
        String type = "dev.orto.area" + number % 40 + ".GardenTest";
        return recorder.startTest(
                recorder.run(),
                TestDescriptor.of(type + "." + name + "()", name)
                        .className(type)
                        .methodName(name)
                        .build());
    }

    private static Throwable deep(int number, int frames) {
        return frames == 0 ? new AssertionError("bed " + number + " is dry") : deep(number, frames - 1);
    }

    private static Path steps(int tests) {
        AdapterRecorder recorder = recorder();
        for (int i = 0; i < tests; i++) {
            Scope test = start(recorder, i);
            for (int step = 0; step < 10; step++)
                recorder.startStep("Water row " + step).passed();
            recorder.endTest(test, TestEnd.passed());
        }
        return recorder.folder();
    }

    private static void measure(String what, Path run, int tests) throws IOException {
        long bytes = 0;
        long packed = 0;
        long stacks = 0;
        int counted = tests;
        try (Stream<Path> journals = Files.list(run.resolve("journals"))) {
            for (Path journal : journals.toList()) {
                bytes += Files.size(journal);
                packed += packed(journal);
                try (Stream<String> lines = Files.lines(journal, StandardCharsets.UTF_8)) {
                    for (String line : (Iterable<String>) lines::iterator) {
                        if (line.contains("\"stack\":\"")) stacks++;
                        if (tests == 0 && line.startsWith("{\"event\":\"test-started\"")) counted++;
                    }
                }
            }
        }
        System.out.printf(
                Locale.ROOT,
                "%s: %d tests, %.1f MB, %d bytes a test; gzip %.2f MB, %d bytes a test; %d stacks%n",
                what,
                counted,
                bytes / 1e6,
                bytes / Math.max(1, counted),
                packed / 1e6,
                packed / Math.max(1, counted),
                stacks);
    }

    private static long packed(Path journal) throws IOException {
        var counter = new CountedBytes();
        try (InputStream in = Files.newInputStream(journal);
                OutputStream out = new GZIPOutputStream(counter)) {
            in.transferTo(out);
        }
        return counter.count;
    }

    private static final class CountedBytes extends OutputStream {
        private long count;

        @Override
        public void write(int one) {
            count++;
        }

        @Override
        public void write(byte[] some, int from, int length) {
            count += length;
        }
    }
}
