package dev.verbale.benchmarks;

import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import dev.verbale.json.TextFilter;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.join.RunJoiner;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.LongAdder;

/**
 * A large run of 20 shards: joined, read whole in a heap of 512 MB and of 2 GB, and test by test in one of 128 MB. {@code bin/bench ReadScale [TESTS] [STEPS]}; without arguments
 * 100,000 tests of 10 steps.
 */
public final class ReadScale {

    private static final int SHARDS = 20;

    private ReadScale() {}

    /** {@code [TESTS] [STEPS]}, or {@code read FOLDER} in the small heap. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        if (arguments.length == 2 && arguments[0].equals("read")) {
            read(Path.of(arguments[1]));
            return;
        }
        if (arguments.length == 2 && arguments[0].equals("ends")) {
            ends(Path.of(arguments[1]));
            return;
        }
        int tests = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 100_000;
        int steps = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 10;
        Path work = Files.createTempDirectory("read-scale");
        try {
            List<Path> shards = new ArrayList<>();
            for (int shard = 0; shard < SHARDS; shard++) {
                shards.add(work.resolve("shard-" + shard));
                write(shards.get(shard), shard, tests / SHARDS, steps, Integer.MAX_VALUE);
            }
            long from = System.nanoTime();
            RunJoiner.join(shards, work.resolve("all"));
            double joining = (System.nanoTime() - from) / 1e9;
            from = System.nanoTime();
            long bytes = 0;
            for (Path shard : shards) bytes += copy(shard, work.resolve("copy-" + shard.getFileName()));
            double copying = (System.nanoTime() - from) / 1e9;
            System.out.printf(
                    "%d shards, %d MB: joined in %.1f s, copied in %.1f s%n",
                    SHARDS, bytes / 1_000_000, joining, copying);
            for (int i = 0; i < 3; i++) {
                String run = work.resolve("all").toString();
                again("-Xmx512m", ReadScale.class, "read", run);
                again("-Xmx2g", ReadScale.class, "read", run);
                again("-Xmx128m", ReadScale.class, "ends", run);
            }
        } finally {
            delete(work);
        }
    }

    /** {@code main} in a JVM of its own. */
    static void again(String heap, Class<?> main, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                heap,
                "-cp",
                System.getProperty("java.class.path"),
                main.getName()));
        command.addAll(List.of(arguments));
        new ProcessBuilder(command).inheritIO().start().waitFor();
    }

    static void delete(Path folder) throws IOException {
        try (var all = Files.walk(folder)) {
            all.sorted(Comparator.reverseOrder()).map(Path::toFile).forEach(File::delete);
        }
    }

    private static void ends(Path folder) throws IOException {
        long from = System.nanoTime();
        var tests = new LongAdder();
        var steps = new LongAdder();
        RunReader.read(folder, test -> {
            tests.increment();
            steps.add(test.entries().size());
            return test.withEntries(List.of());
        });
        System.out.printf(
                "heap of %d MB: %d tests with %d steps, one by one, in %.1f s%n",
                Runtime.getRuntime().maxMemory() >> 20, tests.sum(), steps.sum(), (System.nanoTime() - from) / 1e9);
    }

    private static void read(Path folder) throws IOException {
        long from = System.nanoTime();
        Run run = RunReader.read(folder);
        double reading = (System.nanoTime() - from) / 1e9;
        System.out.printf(
                "heap of %d MB: %d tests read in %.1f s, %d problems%n",
                Runtime.getRuntime().maxMemory() >> 20,
                run.counts().all(),
                reading,
                run.problems().size());
    }

    private static long copy(Path from, Path to) throws IOException {
        long bytes = 0;
        try (var all = Files.walk(from)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                Path target = to.resolve(from.relativize(file).toString());
                Files.createDirectories(target.getParent());
                Files.copy(file, target);
                bytes += Files.size(file);
            }
        }
        return bytes;
    }

    /** @param failing the how manieth test fails each time */
    static void write(Path path, int shard, int tests, int steps, int failing) throws IOException {
        var folder = new RunFolder(path);
        Files.createDirectories(folder.journals());
        Instant started = Instant.parse("2026-11-24T22:15:00Z");
        new RunDescription(JournalFormat.VERSION, folder.name(), started, Map.of()).writeIfAbsent(folder.runFile());
        JournalWriter journal = JournalWriter.open(
                folder.journal("worker-1"),
                JournalOpened.of(JournalFormat.VERSION, "worker-1", started)
                        .pid(shard)
                        .verbale("0")
                        .build(),
                TextFilter.NONE);
        long at = 0;
        int id = 0;
        for (int test = 0; test < tests; test++) {
            int number = ++id;
            String key = "dev.orto.area" + test % 40 + ".Garden" + shard + "Test.waters_bed_" + test + "()";
            journal.append(TestStarted.of(++at, number, key, "waters bed " + test)
                    .className("dev.orto.Garden" + shard + "Test")
                    .methodName("waters")
                    .thread("main")
                    .build());
            for (int step = 0; step < steps; step++) {
                int inner = ++id;
                journal.append(StepStarted.of(++at, inner, StepKind.ACTION, "Step " + (test + step) % 300)
                        .in(number)
                        .build());
                journal.append(StepEnded.of(++at, inner, Outcome.PASSED).build());
            }
            Failure failure = test % failing == failing - 1 ? failure(test) : null;
            journal.append(TestEnded.of(++at, number, failure == null ? Outcome.PASSED : Outcome.FAILED)
                    .failure(failure)
                    .build());
        }
        journal.append(new JournalEnded(++at, 0, Map.of(), 0));
    }

    private static Failure failure(int test) {
        String message = "bed " + test + " ==> expected: <wet> but was: <dry>";
        var stack = new StringBuilder("org.opentest4j.AssertionFailedError: " + message);
        stack.append("\n\tat dev.orto.Watering.check").append(test % 700).append("(Watering.java:31)");
        for (int i = 0; i < 20; i++)
            stack.append("\n\tat org.junit.platform.Frames.frame").append(i).append("(Frames.java:1)");
        return Failure.of("org.opentest4j.AssertionFailedError", stack.toString())
                .message(message)
                .expected("wet")
                .actual("dry")
                .build();
    }
}
