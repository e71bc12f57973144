package dev.verbale.engine.guard;

import dev.verbale.border.ThreadStop;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.scope.ThreadContext;
import dev.verbale.stack.StackSpace;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.LongAdder;
import org.jspecify.annotations.Nullable;

/**
 * The one border between recording and the tests: all recording runs in here, and nothing that goes wrong gets out. The
 * suite's own code that recording has to call, such as a {@code toString}, is asked through {@link UserCode}.
 *
 * <p>The stack may end at any call in here, the first and the last ones too. So what must be undone is a store to a field in
 * {@code finally}, which needs no stack, and what cannot even be reported is counted in the same way and reported later.
 */
public final class Guard {

    /** One quick call in so many is timed, a power of two: reading the clock twice for each would be a tenth of its cost. */
    private static final int SAMPLE = 64;

    /** A quick call that took longer was waiting for a processor or a collection, and stands for no other one. */
    private static final long LONGEST_QUICK_NANOS = 100_000;

    private final InheritableThreadLocal<ThreadContext> contexts = new InheritableThreadLocal<>() {
        @Override
        protected ThreadContext initialValue() {
            return new ThreadContext(bodyThreads);
        }

        @Override
        protected ThreadContext childValue(ThreadContext makers) {
            return makers.ofNewThread();
        }
    };

    private final UserCode userCode = new UserCode(this);
    private final RunJournal journal;
    private final List<String> bodyThreads;
    private final LongAdder nanos = new LongAdder();

    /** What was lost where not even a method could be called. Plain: two threads at once may count one for two. */
    public int lost;

    private int lostReported;

    /**
     * What was done once: the first time may have to load classes, for which there must be stack. Plain: what two threads add at
     * once may be one, and the other is looked at once more.
     */
    private final Set<Task> done = EnumSet.noneOf(Task.class);

    /** @param bodyThreads how the names of the threads begin that run the body of one test */
    public Guard(RunJournal journal, List<String> bodyThreads) {
        this.journal = journal;
        this.bodyThreads = bodyThreads;
    }

    /** What is known of the calling thread. */
    public ThreadContext context() {
        ThreadContext context = contexts.get();
        context.settle();
        return context;
    }

    /** What asks the suite's own code. */
    public UserCode userCode() {
        return userCode;
    }

    /** Nanoseconds that recording took of the recording threads' time so far, estimated. */
    public long overhead() {
        return nanos.sum();
    }

    /** Runs {@code recording} unless this thread is recording already. */
    public void run(Task task, Recording recording) {
        run(task, task, task, null, recording);
    }

    /** Runs {@code recording}, which has a result; {@code fallback} is the result where there is none. */
    public <T extends @Nullable Object> T get(Task task, T fallback, RecordingWithResult<T> recording) {
        var result = new Result<>(fallback, recording);
        run(task, result);
        return result.value;
    }

    /** As {@link #run}, with what it needs as arguments: for the calls that are made by the million, and must not allocate. */
    public <R, A extends @Nullable Object, B> void run(
            Task task, R self, A first, @Nullable B second, RecordingOf<R, A, B> recording) {
        ThreadContext entered = null;
        try {
            ThreadContext context = context();
            if (context.recording) return;
            entered = context;
            context.recording = true;
            boolean isFirst = !done.contains(task);
            if (isFirst) StackSpace.ensureForFirstCall();
            else if (task.slow) StackSpace.ensureForCall();
            boolean timed = task.slow || (++context.calls & (SAMPLE - 1)) == 0;
            long from = timed ? System.nanoTime() : 0;
            recording.run(self, context, first, second);
            if (timed) timed(task, System.nanoTime() - from);
            if (isFirst) done.add(task);
            if (lost != lostReported) reportLost();
        } catch (Throwable problem) {
            boolean goesOn = false;
            try {
                goesOn = ThreadStop.is(problem) || isOfTheJvm(problem);
                if (!goesOn) kept(task, problem);
            } catch (Throwable worse) {
                lost++;
            }
            if (goesOn) throw (Error) problem;
        } finally {
            if (entered != null) entered.recording = false;
        }
    }

    /** Whether there is stack for what {@code task} does before it comes to {@link #run}; where there is none, it is lost. */
    public boolean isReady(Task task) {
        if (done.contains(task)) return true;
        try {
            StackSpace.ensureForFirstCall();
            return true;
        } catch (StackOverflowError full) {
            lost++;
            return false;
        }
    }

    /**
     * Whether the JVM itself is failing: a test that passes now would be a lie. A full stack and a full memory are no such failure;
     * where the JVM cannot link a lambda for one of them, it throws another error, which has the overflow as its cause.
     */
    private static boolean isOfTheJvm(Throwable problem) {
        return problem instanceof VirtualMachineError
                && !isFull(problem)
                && !(problem.getCause() != null && isFull(problem.getCause()));
    }

    private static boolean isFull(Throwable problem) {
        return problem instanceof StackOverflowError || problem instanceof OutOfMemoryError;
    }

    private void timed(Task task, long elapsed) {
        if (task.slow) nanos.add(elapsed);
        else if (elapsed < LONGEST_QUICK_NANOS) nanos.add(elapsed * SAMPLE);
    }

    private void kept(Task task, Throwable problem) {
        if (problem instanceof InterruptedException) Thread.currentThread().interrupt();
        journal.missed(task.kind, 1);
        journal.problems().add(task.doing + ": " + userCode.text(problem));
    }

    /** Later, on whatever thread: the one that lost it may be over. */
    public void reportLost() {
        int now = lost;
        if (now == lostReported) return;
        journal.missed("stack", now - lostReported);
        lostReported = now;
        journal.problems().add("a call came where a thread's stack, or the memory, was at its end");
    }

    @FunctionalInterface
    public interface Recording extends RecordingOf<Object, @Nullable Object, Object> {
        void run(ThreadContext context) throws Exception;

        @Override
        default void run(Object self, ThreadContext context, @Nullable Object first, @Nullable Object second)
                throws Exception {
            run(context);
        }
    }

    @FunctionalInterface
    public interface RecordingWithResult<T extends @Nullable Object> {
        T run(ThreadContext context) throws Exception;
    }

    /** A method of the recorder, named and not bound, so that no object is made for the call. */
    @FunctionalInterface
    public interface RecordingOf<R, A extends @Nullable Object, B> {
        void run(R self, ThreadContext context, A first, @Nullable B second) throws Exception;
    }

    /** Not a lambda: that is a class of its own too, made in each JVM before its first test. */
    private static final class Result<T extends @Nullable Object> implements Recording {
        private final RecordingWithResult<T> recording;
        private T value;

        Result(T fallback, RecordingWithResult<T> recording) {
            this.recording = recording;
            value = fallback;
        }

        @Override
        public void run(ThreadContext context) throws Exception {
            value = recording.run(context);
        }
    }
}
