package dev.verbale.benchmarks;

import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Time for each call, by JMH; {@code -t} sets the threads and {@code -prof gc} tells the bytes. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@State(Scope.Benchmark)
public class RecorderBenchmark {

    /** What is called. */
    @Param({"bare", "log", "step", "attachment"})
    public String kind = "log";

    private Supplier<Sinks.Sink> sink = () -> n -> {};

    /** A file or a recorder of its own for each kind. */
    @Setup(Level.Trial)
    public void open() {
        Path folder = Sinks.folder();
        sink = switch (kind) {
            case "bare" -> Sinks.bare(folder);
            case "step" -> Sinks.steps(folder);
            case "attachment" -> Sinks.attachments(folder);
            default -> Sinks.logLines(folder);
        };
    }

    /** A thread's own way in. */
    @State(Scope.Thread)
    public static class Writer {
        private Sinks.Sink mine = n -> {};
        private int n;

        /** In the thread that measures, for a test belongs to its thread. */
        @Setup(Level.Trial)
        public void start(RecorderBenchmark benchmark) {
            mine = benchmark.sink.get();
        }
    }

    /** One call; a step is two events. */
    @Benchmark
    public void call(Writer writer) {
        writer.mine.write(writer.n++);
    }
}
