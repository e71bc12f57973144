package dev.verbale.benchmarks;

import com.sun.management.OperatingSystemMXBean;
import dev.verbale.MediaType;
import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A suite as they are: tests that reckon a little, wait a little, and log; a line says what they cost, and what of it went into sending. */
public final class SentSuite {

    private static final int THREADS = 2;
    private static final int LINES = 10;
    private static final int TESTS_AN_ATTACHMENT = 10;
    private static final int HASHES = 600;
    private static final long PAUSE_NANOS = TimeUnit.MILLISECONDS.toNanos(150);
    private static final byte[] ATTACHMENT = "kale,3\n".repeat(3_000).getBytes(StandardCharsets.UTF_8);

    private SentSuite() {}

    /** Argument: how many tests each of two threads has. */
    public static void main(String[] arguments) throws Exception {
        int tests = Integer.parseInt(arguments[0]);
        AdapterRecorder recorder = AdapterRecorder.current();
        var micros = new double[THREADS * tests * LINES];
        var threads = new Thread[THREADS];
        for (int i = 0; i < THREADS; i++) {
            int from = i * tests * LINES;
            threads[i] = new Thread(() -> run(recorder, tests, micros, from));
            threads[i].start();
        }
        for (Thread thread : threads) thread.join();
        Arrays.sort(micros);
        long cpu = ((OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean()).getProcessCpuTime();
        System.out.printf(
                Locale.ROOT,
                "cpu %.1f sending %.1f p99 %.1f%n",
                cpu / 1e6,
                sending() / 1e6,
                micros[micros.length * 99 / 100]);
    }

    private static void run(AdapterRecorder recorder, int tests, double[] micros, int from) {
        int at = from;
        for (int i = 0; i < tests; i++) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("load.T" + from + "_" + i, "t" + i).build());
            for (int line = 0; line < LINES; line++) {
                long before = System.nanoTime();
                Verbale.log("watered bed " + i + " with " + line + " litres");
                micros[at++] = (System.nanoTime() - before) / 1e3;
                reckon();
            }
            if (i % TESTS_AN_ATTACHMENT == 0) recorder.attach("rota.csv", ATTACHMENT, MediaType.CSV);
            recorder.endTest(test, TestEnd.passed());
            LockSupport.parkNanos(PAUSE_NANOS);
        }
    }

    private static void reckon() {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (int i = 0; i < HASHES / LINES; i++) digest.update(ATTACHMENT);
        } catch (java.security.NoSuchAlgorithmException never) {
            throw new IllegalStateException(never);
        }
    }

    /** The processor time of the sender's thread and its client's, in nanoseconds. */
    private static long sending() {
        var threads = ManagementFactory.getThreadMXBean();
        long all = 0;
        for (var thread : threads.getThreadInfo(threads.getAllThreadIds())) {
            if (thread == null) continue;
            String name = thread.getThreadName();
            if (name.startsWith("verbale-sender") || name.startsWith("HttpClient-"))
                all += Math.max(0, threads.getThreadCpuTime(thread.getThreadId()));
        }
        return all;
    }
}
