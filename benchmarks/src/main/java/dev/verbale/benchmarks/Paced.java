package dev.verbale.benchmarks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;

/** How long a call takes when calls come now and then, as in a suite: 4 threads, one event every 250 microseconds each. */
public final class Paced {

    private static final int THREADS = 4;
    private static final long PAUSE_NANOS = 250_000;
    private static final int CALLS = 8_000;
    private static final int ROUNDS = 3;

    private Paced() {}

    public static void main(String[] arguments) throws Exception {
        var folder = Sinks.folder();
        Map<String, Supplier<Sinks.Sink>> sinks = new LinkedHashMap<>();
        sinks.put("log line", Sinks.logLines(folder));
        sinks.put("logback", Sinks.logback(folder));
        sinks.put("log4j", Sinks.log4j(folder));
        Map<String, long[]> nanos = new LinkedHashMap<>();
        for (int round = -1; round < ROUNDS; round++)
            for (var sink : sinks.entrySet())
                nanos.merge(sink.getKey(), calls(sink.getValue(), round < 0), Paced::joined);
        System.out.println("what        p50 us   p99 us");
        nanos.forEach((name, times) -> {
            Arrays.sort(times);
            System.out.printf(
                    Locale.ROOT,
                    "%-10s %7.1f  %7.1f%n",
                    name,
                    times[times.length / 2] / 1e3,
                    times[times.length * 99 / 100] / 1e3);
        });
        System.exit(0);
    }

    private static long[] calls(Supplier<Sinks.Sink> sink, boolean warmUp) throws Exception {
        List<long[]> all = new ArrayList<>();
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < THREADS; i++) {
            var times = new long[CALLS];
            all.add(times);
            var thread = new Thread(() -> {
                Sinks.Sink mine = sink.get();
                long next = System.nanoTime();
                for (int n = 0; n < CALLS; n++) {
                    next += PAUSE_NANOS;
                    while (System.nanoTime() < next) LockSupport.parkNanos(next - System.nanoTime());
                    long from = System.nanoTime();
                    mine.write(n);
                    times[n] = System.nanoTime() - from;
                }
            });
            thread.start();
            threads.add(thread);
        }
        for (Thread thread : threads) thread.join();
        if (warmUp) return new long[0];
        long[] joined = new long[0];
        for (long[] times : all) joined = joined(joined, times);
        return joined;
    }

    private static long[] joined(long[] one, long[] other) {
        long[] both = Arrays.copyOf(one, one.length + other.length);
        System.arraycopy(other, 0, both, one.length, other.length);
        return both;
    }
}
