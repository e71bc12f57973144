package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The stack of one thread ends at every place in recording, thousands of times, while others record. */
@Tag("newer-jdk")
class DeepStackTest {

    /** Each depth of a frame at which a stack may end, once or more often. */
    private static final int ROUNDS = Boolean.getBoolean("verbale.night") ? 300 : 61;

    @TempDir
    Path root;

    @Test
    void nobody_waits_nobody_is_thrown_at_and_what_is_lost_is_counted() throws Exception {
        Child jvm = Child.run(
                root,
                Map.of(),
                List.of(
                        "-Xss256k",
                        "-Dverbale.log.adopt-orphans=false",
                        "-Dverbale.night=" + Boolean.getBoolean("verbale.night")),
                Deep.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(jvm.output()).contains("recorded by another thread: ").contains("Verbale: 1 test: 1 passed");
        Run run = RunReader.read(root);
        assertThat(run.workers()).singleElement().satisfies(worker -> {
            assertThat(worker.ended()).isTrue();
            assertThat(worker.missing()).isPositive();
        });
        assertThat(run.tests()).singleElement().satisfies(test -> {
            assertThat(test.entries().stream()
                            .filter(entry -> entry instanceof Entry.LogEntry log
                                    && log.text().equals("after it all")))
                    .hasSize(1);
        });
        int others = Integer.parseInt(jvm.output().replaceAll("(?s).*recorded by another thread: (\\d+).*", "$1"));
        assertThat(run.entries().stream()
                        .filter(entry -> entry instanceof Entry.LogEntry log
                                && log.text().equals("other")))
                .hasSize(others);
        assertThat(run.problems()).noneMatch(problem -> problem.what().contains("not JSON"));
    }

    /** Records in steps of every depth until its stack ends. */
    static final class Deep {
        private static final AtomicInteger OTHERS = new AtomicInteger();
        private static final AtomicBoolean OVER = new AtomicBoolean();
        private static final AtomicInteger THROWN = new AtomicInteger();

        public static void main(String[] arguments) throws Exception {
            AdapterRecorder recorder = AdapterRecorder.current();
            var other = new Thread(() -> {
                while (!OVER.get()) {
                    Verbale.log("other");
                    OTHERS.incrementAndGet();
                    LockSupport.parkNanos(50_000); // often enough to meet each overflow, and no millions of lines
                }
            });
            other.start();
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "deep").build());
            for (int round = 0; round < ROUNDS; round++) {
                int phase = round;
                var deep = new Thread(Verbale.carry((Runnable) () -> phased(phase % 61)), "deep-" + round);
                deep.start();
                deep.join();
            }
            OVER.set(true);
            other.join();
            Verbale.log("after it all");
            recorder.endTest(test, TestEnd.passed());
            System.out.println("recorded by another thread: " + OTHERS.get());
            if (THROWN.get() > 0) System.exit(3);
        }

        private static void phased(int phase) {
            if (phase > 0) phased(phase - 1);
            else
                try {
                    deeper(0);
                } catch (StackOverflowError ended) {
                    // its own, as was wanted
                }
        }

        /** Without frames: a thousand of them in each line would be most of what is written. */
        private static final class Mine extends RuntimeException {
            private static final long serialVersionUID = 1;

            Mine() {
                super("mine", null, false, false);
            }
        }

        private static void deeper(int depth) {
            if (depth % 7 == 0) {
                var mine = new Mine();
                try {
                    Verbale.step("step", () -> {
                        throw mine;
                    });
                } catch (Mine out) {
                    if (out != mine) THROWN.incrementAndGet();
                }
            } else if (depth % 5 == 0) Verbale.data("depth", depth);
            else Verbale.log("{} deep", depth);
            deeper(depth + 1);
        }
    }
}
