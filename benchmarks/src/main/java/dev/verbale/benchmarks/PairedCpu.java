package dev.verbale.benchmarks;

import com.sun.management.ThreadMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * CPU time, wall time and bytes allocated for each event, as ratios to a bare write of the same bytes. All are measured in
 * one JVM, in rounds that take turns, so that a machine that slows down slows all of them; the median of the rounds counts.
 */
public final class PairedCpu {

    private static final int ROUNDS = 15;
    private static final int WARM_UP = 6;
    private static final int CALLS = 40_000;
    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();

    private PairedCpu() {}

    private record Overhead(double cpu, double wall, double bytes) {}

    /** Arguments: the numbers of threads to measure with, 1 2 4 8 where there are none. */
    public static void main(String[] arguments) throws Exception {
        List<Integer> threads = new ArrayList<>();
        for (String argument : arguments) threads.add(Integer.valueOf(argument));
        if (threads.isEmpty()) threads.addAll(List.of(1, 2, 4, 8));
        Map<String, Function<Path, Supplier<Sinks.Sink>>> kinds = new LinkedHashMap<>();
        kinds.put("bare write", Sinks::bare);
        kinds.put("log line", Sinks::logLines);
        kinds.put("step (a half)", Sinks::steps);
        kinds.put("logback", Sinks::logback);
        kinds.put("log4j", Sinks::log4j);
        System.out.println("threads  what            CPU ns  ratio                  wall ns  bytes");
        for (int count : threads) {
            Path folder = Sinks.folder();
            Map<String, Supplier<Sinks.Sink>> sinks = new LinkedHashMap<>();
            kinds.forEach((name, kind) -> sinks.put(name, kind.apply(folder)));
            Map<String, List<Overhead>> overheads = new LinkedHashMap<>();
            for (int round = -WARM_UP; round < ROUNDS; round++) {
                for (var sink : sinks.entrySet()) {
                    Overhead overhead =
                            measure(sink.getValue(), count, sink.getKey().startsWith("step") ? 2 : 1);
                    if (round >= 0)
                        overheads
                                .computeIfAbsent(sink.getKey(), k -> new ArrayList<>())
                                .add(overhead);
                }
            }
            List<Overhead> bare = overheads.getOrDefault("bare write", List.of());
            overheads.forEach((name, list) -> System.out.printf(
                    Locale.ROOT,
                    "%7d  %-14s %7.0f  %-20s  %8.0f  %5.0f%n",
                    count,
                    name,
                    Figures.median(list, Overhead::cpu),
                    Figures.withSpread(ratios(list, bare)),
                    Figures.median(list, Overhead::wall),
                    Figures.median(list, Overhead::bytes)));
            if (count == 1) keep(overheads, bare);
        }
        System.exit(0);
    }

    private static void keep(Map<String, List<Overhead>> overheads, List<Overhead> bare) throws IOException {
        List<Overhead> line = overheads.getOrDefault("log line", List.of());
        List<Overhead> step = overheads.getOrDefault("step (a half)", List.of());
        List<Overhead> logback = overheads.getOrDefault("logback", List.of());
        Figures.put("a log line, to a bare write", Figures.median(ratios(line, bare)), 1.5, "times");
        Figures.put("an event of a step, to a bare write", Figures.median(ratios(step, bare)), 1.5, "times");
        Figures.put("a log line, to Logback", Figures.median(ratios(line, logback)), 0.5, "times");
        Figures.put("an event of a step, to Logback", Figures.median(ratios(step, logback)), 0.5, "times");
    }

    /** Of the CPU time, round by round. */
    private static double[] ratios(List<Overhead> list, List<Overhead> to) {
        var ratios = new double[list.size()];
        for (int i = 0; i < ratios.length; i++)
            ratios[i] = list.get(i).cpu() / to.get(i).cpu();
        return ratios;
    }

    private static Overhead measure(Supplier<Sinks.Sink> sink, int threads, int eventsACall) throws Exception {
        var start = new CountDownLatch(1);
        var cpu = new long[threads];
        var bytes = new long[threads];
        List<Thread> running = new ArrayList<>();
        int calls = CALLS / threads / eventsACall;
        for (int number = 0; number < threads; number++) {
            int at = number;
            var thread = new Thread(() -> {
                Sinks.Sink mine = sink.get();
                for (int n = 0; n < 200; n++) mine.write(n);
                await(start);
                long id = Thread.currentThread().getId();
                long cpuBefore = THREADS.getCurrentThreadCpuTime();
                long bytesBefore = THREADS.getThreadAllocatedBytes(id);
                for (int n = 0; n < calls; n++) mine.write(n);
                bytes[at] = THREADS.getThreadAllocatedBytes(id) - bytesBefore;
                cpu[at] = THREADS.getCurrentThreadCpuTime() - cpuBefore;
            });
            thread.start();
            running.add(thread);
        }
        long before = System.nanoTime();
        start.countDown();
        for (Thread thread : running) thread.join();
        double events = (double) calls * threads * eventsACall;
        long allCpu = 0;
        long allBytes = 0;
        for (int i = 0; i < threads; i++) {
            allCpu += cpu[i];
            allBytes += bytes[i];
        }
        return new Overhead(allCpu / events, (System.nanoTime() - before) / events, allBytes / events);
    }

    private static void await(CountDownLatch start) {
        try {
            start.await();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
