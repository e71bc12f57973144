package dev.verbale.benchmarks;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.StepKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/**
 * A night in which everything fails in one place: each test's tear-down throws, with a stack of seventy frames and a cause, for one of
 * twelve reasons and with texts of its own. How large its journal and its page are, and how long those take. {@code bin/bench
 * FailureStorm [TESTS]}.
 */
public final class FailureStorm {

    private static final int REASONS = 12;
    private static final int DEPTH = 60;

    private FailureStorm() {}

    /** {@code [TESTS]}. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        if (arguments.length == 3) { // in a JVM of its own, whose end is the run's
            record(Path.of(arguments[1]), Integer.parseInt(arguments[2]));
            return;
        }
        String tests = arguments.length > 0 ? arguments[0] : "10000";
        Path work = Files.createTempDirectory("failure-storm");
        try {
            ReadScale.again("-Xmx512m", FailureStorm.class, "record", work.toString(), tests);
            RunFolder run = new ResultsRoot(work).runs().get(0);
            System.out.printf("  journal %.1f MB%n", size(run.path().resolve("journals")) / 1e6);
            ReadScale.again("-Xmx512m", PageScale.class, "write", run.path().toString());
            PageScale.open(run.page().resolve("index.html"), Integer.parseInt(tests));
        } finally {
            ReadScale.delete(work);
        }
    }

    private static long size(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile)
                    .mapToLong(file -> file.toFile().length())
                    .sum();
        }
    }

    private static void record(Path root, int tests) {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        long from = System.nanoTime();
        long characters = 0;
        for (int i = 0; i < tests; i++) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("dev.orto.Bed" + i % 800 + "Test.waters(" + i + ")", "waters bed " + i)
                            .className("dev.orto.Bed" + i % 800 + "Test")
                            .build());
            recorder.startStep("Open the tap").passed();
            IllegalStateException failure = failure(i);
            Step tearDown = recorder.startStep(StepKind.TEAR_DOWN, "Close the tap");
            tearDown.failed(failure);
            recorder.endTest(test, TestEnd.threw(failure));
            for (Throwable one = failure; one != null; one = one.getCause())
                for (StackTraceElement frame : one.getStackTrace())
                    characters += frame.toString().length() + 5L;
        }
        System.out.printf(
                "%d tests that fail in one place, for %d reasons: stacks of %.0f MB recorded in %.1f s%n",
                tests, REASONS, characters / 1e6, (System.nanoTime() - from) / 1e9);
    }

    private static IllegalStateException failure(int test) {
        try {
            called(DEPTH, test);
            throw new AssertionError("nothing was thrown");
        } catch (IllegalStateException thrown) {
            return new IllegalStateException("bed " + test + " could not be closed: reason " + test % REASONS, thrown);
        }
    }

    private static void called(int depth, int test) {
        if (depth == 0) throw new IllegalStateException("valve " + test % REASONS + " of bed " + test + " is stuck");
        if (depth % REASONS == test % REASONS) through(depth - 1, test);
        else called(depth - 1, test);
    }

    private static void through(int depth, int test) {
        called(depth, test);
    }
}
