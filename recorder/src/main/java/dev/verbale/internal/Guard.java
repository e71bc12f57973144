package dev.verbale.internal;

import java.util.function.Supplier;

/**
 * The one border between recording and the tests: all recording runs in here, and nothing that goes wrong gets out. The
 * user's code never runs in here, or its exceptions would be lost.
 */
final class Guard {

    private final ThreadLocal<Seat> seats = ThreadLocal.withInitial(Seat::new);
    private final Problems problems;

    Guard(Problems problems) {
        this.problems = problems;
    }

    /** What is known of the calling thread. */
    Seat seat() {
        return seats.get();
    }

    /** Runs {@code recording} unless this thread is recording already. {@code task} says what a problem interrupted. */
    void run(String task, Recording recording) {
        Seat seat = seats.get();
        if (seat.recording) return;
        seat.recording = true;
        try {
            recording.run(seat);
        } catch (Throwable problem) {
            kept(task, problem);
        } finally {
            seat.recording = false;
        }
    }

    /** The same with a result; {@code otherwise} is the result where there is none. */
    <T> T get(String task, Supplier<T> otherwise, RecordingWithResult<T> recording) {
        Seat seat = seats.get();
        if (seat.recording) return otherwise.get();
        seat.recording = true;
        try {
            return recording.run(seat);
        } catch (Throwable problem) {
            kept(task, problem);
            return otherwise.get();
        } finally {
            seat.recording = false;
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
}
