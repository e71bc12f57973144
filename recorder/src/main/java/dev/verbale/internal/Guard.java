package dev.verbale.internal;

import java.util.concurrent.atomic.LongAdder;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The one border between recording and the tests: all recording runs in here, and nothing that goes wrong gets out. The
 * user's code never runs in here, or its exceptions would be lost.
 */
final class Guard {

    /** One call in so many is timed, a power of two: reading the clock twice for each would be a tenth of its cost. */
    private static final int SAMPLE = 64;

    private final InheritableThreadLocal<Seat> seats = new InheritableThreadLocal<>() {
        @Override
        protected Seat initialValue() {
            return new Seat();
        }

        @Override
        protected Seat childValue(Seat makers) {
            return makers.ofNewThread();
        }
    };

    private final Problems problems;
    private final LongAdder nanos = new LongAdder();

    Guard(Problems problems) {
        this.problems = problems;
    }

    /** What is known of the calling thread. */
    Seat seat() {
        Seat seat = seats.get();
        seat.settle();
        return seat;
    }

    /** Nanoseconds that recording took of the recording threads' time so far. */
    long cost() {
        return nanos.sum();
    }

    /** Runs {@code recording} unless this thread is recording already. {@code task} says what a problem interrupted. */
    void run(String task, Recording recording) {
        run(task, recording, task, null, Guard::runIt);
    }

    private static void runIt(Recording recording, Seat seat, String task, @Nullable Void nothing) throws Exception {
        recording.run(seat);
    }

    /** The same with a result; {@code otherwise} is the result where there is none. */
    <T> T get(String task, Supplier<T> otherwise, RecordingWithResult<T> recording) {
        var result = new Result<T>();
        run(task, seat -> {
            result.value = recording.run(seat);
            result.there = true;
        });
        return result.there ? result.value : otherwise.get();
    }

    /** As {@link #run}, with what it needs as arguments: for the calls that are made by the million, and must not allocate. */
    <R, A, B> void run(String task, R self, A first, @Nullable B second, RecordingOf<R, A, B> recording) {
        Seat seat = seat();
        if (seat.recording) return;
        seat.recording = true;
        long from = (++seat.calls & (SAMPLE - 1)) == 0 ? System.nanoTime() : 0;
        try {
            recording.run(self, seat, first, second);
        } catch (Throwable problem) {
            kept(task, problem);
        } finally {
            seat.recording = false;
            if (from != 0) nanos.add((System.nanoTime() - from) * SAMPLE);
        }
    }

    private void kept(String task, Throwable problem) {
        rethrowFatal(problem);
        if (problem instanceof InterruptedException) Thread.currentThread().interrupt();
        problems.add(task, problem);
    }

    /**
     * The JVM itself is failing; a test that passes now would be a lie. A stack overflow is only this thread's, and deep
     * recursion is what some tests are about.
     */
    static void rethrowFatal(Throwable problem) {
        if (problem instanceof VirtualMachineError fatal && !(problem instanceof StackOverflowError)) throw fatal;
    }

    @FunctionalInterface
    interface Recording {
        void run(Seat seat) throws Exception;
    }

    @FunctionalInterface
    interface RecordingWithResult<T> {
        T run(Seat seat) throws Exception;
    }

    /** A method of the recorder, named and not bound, so that no object is made for the call. */
    @FunctionalInterface
    interface RecordingOf<R, A, B> {
        void run(R self, Seat seat, A first, @Nullable B second) throws Exception;
    }

    private static final class Result<T> {
        @SuppressWarnings("NullAway.Init")
        T value;

        boolean there;
    }
}
