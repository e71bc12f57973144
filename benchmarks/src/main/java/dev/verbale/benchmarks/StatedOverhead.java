package dev.verbale.benchmarks;

import com.sun.management.OperatingSystemMXBean;
import dev.verbale.Verbale;
import dev.verbale.results.RunReader;
import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Whether the cost that a run states of itself can be believed: beside it stands by how much the CPU time of a JVM grows when it
 * records, against one that does the same with recording switched off.
 */
public final class StatedOverhead {

    private static final int CALLS = 600_000;

    private StatedOverhead() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments.length > 0) {
            inside(Integer.parseInt(arguments[0]));
            return;
        }
        System.out.println("| threads | CPU with recording, s | without, s | it grew by, s | stated, s |");
        System.out.println("|---|---|---|---|---|");
        for (int threads : List.of(1, 2, 8)) {
            Path root = Sinks.folder();
            double with = cpu(root, threads, true);
            double without = cpu(root, threads, false);
            double stated = RunReader.read(root).workers().stream()
                    .mapToDouble(worker -> worker.overhead().toNanos() / 1e9)
                    .sum();
            System.out.printf("| %d | %.2f | %.2f | %.2f | %.2f |%n", threads, with, without, with - without, stated);
        }
    }

    private static double cpu(Path root, int threads, boolean enabled) throws Exception {
        Process jvm = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Dverbale.root=" + root,
                        "-Dverbale.enabled=" + enabled,
                        "-Dverbale.summary-line=false",
                        "-cp",
                        System.getProperty("java.class.path"),
                        StatedOverhead.class.getName(),
                        String.valueOf(threads)))
                .redirectErrorStream(true)
                .start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        jvm.waitFor();
        return Double.parseDouble(output.strip());
    }

    private static void inside(int threads) throws Exception {
        List<Thread> all = new ArrayList<>();
        for (int thread = 0; thread < threads; thread++) {
            all.add(new Thread(() -> {
                for (int i = 0; i < CALLS / threads; i++) {
                    int number = i;
                    Verbale.step("step " + (i & 1023), () -> Verbale.log("plot {} is watered", number));
                }
            }));
        }
        all.forEach(Thread::start);
        for (Thread thread : all) thread.join();
        var system = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        System.out.printf(java.util.Locale.ROOT, "%.3f%n", system.getProcessCpuTime() / 1e9);
    }
}
