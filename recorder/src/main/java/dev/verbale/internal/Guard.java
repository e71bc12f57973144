package dev.verbale.internal;

import java.util.concurrent.atomic.LongAdder;
import org.jspecify.annotations.Nullable;

/**
 * The one border between recording and the tests: all recording runs in here, and nothing that goes wrong gets out. The
 * suite's own code that recording has to call, such as a {@code toString}, is asked through {@link Foreign}.
 *
 * <p>The stack may end at any call in here, the first and the last ones too. So what must be undone is a store to a field in
 * {@code finally}, which needs no stack, and what cannot even be told is counted in the same way and told later.
 */
final class Guard {

    /** One quick call in so many is timed, a power of two: reading the clock twice for each would be a tenth of its cost. */
    private static final int SAMPLE = 64;

    /** A quick call that took longer was waiting for a processor or a collection, and stands for no other one. */
    private static final long LONGEST_QUICK_NANOS = 100_000;

    /** Of the smallest frames that a compiler makes. The deepest that recording goes, with what it may have to load. */
    private static final int FRAMES_NEEDED = 400;

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

    final Foreign foreign = new Foreign(this);
    private final Minutes minutes;
    private final LongAdder nanos = new LongAdder();

    /** What was lost where not even a method could be called. Plain: two threads at once may count one for two. */
    int lost;

    private int lostAndTold;

    Guard(Minutes minutes) {
        this.minutes = minutes;
    }

    /** What is known of the calling thread. */
    Seat seat() {
        Seat seat = seats.get();
        seat.settle();
        return seat;
    }

    /** Nanoseconds that recording took of the recording threads' time so far, estimated. */
    long cost() {
        return nanos.sum();
    }

    /** Runs {@code recording} unless this thread is recording already. */
    void run(Task task, Recording recording) {
        run(task, recording, task, null, Guard::runIt);
    }

    private static void runIt(Recording recording, Seat seat, Task task, @Nullable Void nothing) throws Exception {
        recording.run(seat);
    }

    /** The same with a result; {@code fallback} is the result where there is none. */
    <T extends @Nullable Object> T get(Task task, T fallback, RecordingWithResult<T> recording) {
        var result = new Result<>(fallback);
        run(task, seat -> result.value = recording.run(seat));
        return result.value;
    }

    /** As {@link #run}, with what it needs as arguments: for the calls that are made by the million, and must not allocate. */
    <R, A, B> void run(Task task, R self, A first, @Nullable B second, RecordingOf<R, A, B> recording) {
        Seat entered = null;
        try {
            Seat seat = seat();
            if (seat.recording) return;
            entered = seat;
            seat.recording = true;
            if (task.slow) hasStack(FRAMES_NEEDED);
            boolean timed = task.slow || (++seat.calls & (SAMPLE - 1)) == 0;
            long from = timed ? System.nanoTime() : 0;
            recording.run(self, seat, first, second);
            if (timed) took(task, System.nanoTime() - from);
            if (lost != lostAndTold) tellWhatWasLost();
        } catch (Throwable problem) {
            if (problem instanceof VirtualMachineError fatal
                    && !(fatal instanceof StackOverflowError)
                    && !(fatal instanceof OutOfMemoryError))
                throw fatal; // the JVM itself is failing; a test that passes now would be a lie
            boolean stopped = false;
            try {
                stopped = Stopped.is(problem);
                if (!stopped) kept(task, problem);
            } catch (Throwable worse) {
                lost++;
            }
            if (stopped) throw (Error) problem;
        } finally {
            if (entered != null) entered.recording = false;
        }
    }

    /** Overflows now, where nothing has begun yet, rather than in the middle. */
    private static int hasStack(int frames) {
        return frames == 0 ? 0 : 1 + hasStack(frames - 1);
    }

    private void took(Task task, long elapsed) {
        if (task.slow) nanos.add(elapsed);
        else if (elapsed < LONGEST_QUICK_NANOS) nanos.add(elapsed * SAMPLE);
    }

    private void kept(Task task, Throwable problem) {
        if (problem instanceof InterruptedException) Thread.currentThread().interrupt();
        minutes.missed(task.kind, 1);
        minutes.problems.add(task.doing + ": " + foreign.text(problem));
    }

    /** Later, on whatever thread: the one that lost it may be over. */
    void tellWhatWasLost() {
        int now = lost;
        if (now == lostAndTold) return;
        minutes.missed("stack", now - lostAndTold);
        lostAndTold = now;
        minutes.problems.add("a call came where a thread's stack, or the memory, was at its end");
    }

    @FunctionalInterface
    interface Recording {
        void run(Seat seat) throws Exception;
    }

    @FunctionalInterface
    interface RecordingWithResult<T extends @Nullable Object> {
        T run(Seat seat) throws Exception;
    }

    /** A method of the recorder, named and not bound, so that no object is made for the call. */
    @FunctionalInterface
    interface RecordingOf<R, A, B> {
        void run(R self, Seat seat, A first, @Nullable B second) throws Exception;
    }

    private static final class Result<T extends @Nullable Object> {
        T value;

        Result(T fallback) {
            value = fallback;
        }
    }
}
