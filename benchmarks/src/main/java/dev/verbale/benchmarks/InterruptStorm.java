package dev.verbale.benchmarks;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** 8 threads write 10,000 lines each while another interrupts them without end: every line has to be there. */
public final class InterruptStorm {

    private static final int THREADS = 8;
    private static final int LINES = 10_000;

    private InterruptStorm() {}

    public static void main(String[] arguments) throws Exception {
        Path folder = Sinks.folder();
        var sink = Sinks.logLines(folder);
        List<Thread> writers = new ArrayList<>();
        var kept = new int[THREADS];
        for (int number = 0; number < THREADS; number++) {
            int at = number;
            var thread = new Thread(() -> {
                Sinks.Sink mine = sink.get();
                for (int n = 0; n < LINES; n++) {
                    boolean before = Thread.currentThread().isInterrupted();
                    mine.write(n);
                    if (before && Thread.interrupted()) kept[at]++;
                }
            });
            thread.start();
            writers.add(thread);
        }
        long interrupts = 0;
        while (writers.stream().anyMatch(Thread::isAlive)) {
            for (Thread thread : writers) thread.interrupt();
            interrupts += THREADS;
        }
        long lines;
        try (Stream<Path> files = Files.walk(folder);
                Stream<String> all =
                        Files.lines(files.filter(file -> file.toString().endsWith(".jsonl"))
                                .findFirst()
                                .orElseThrow())) {
            lines = all.filter(line -> line.startsWith("{\"event\":\"log\"")).count();
        }
        System.out.println(lines + " of " + THREADS * LINES + " lines after " + interrupts + " interrupts");
        System.exit(lines == THREADS * LINES ? 0 : 1);
    }
}
