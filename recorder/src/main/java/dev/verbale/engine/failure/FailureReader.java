package dev.verbale.engine.failure;

import dev.verbale.ChecksFailed;
import dev.verbale.ValuesDiffer;
import dev.verbale.border.Services;
import dev.verbale.engine.guard.UserCode;
import dev.verbale.engine.text.Shortener;
import dev.verbale.event.Failure;
import dev.verbale.spi.ThrowableReader;
import dev.verbale.stack.StackSpace;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;

/** Turns throwables into failures and outcomes, with the help of the {@link ThrowableReader}s that are there. */
public final class FailureReader {

    private static final int GATHERED_DEPTH = 3;
    private static final int MAX_GATHERED = 200;

    /** Of opentest4j, JUnit 4, and TestNG. */
    private static final Set<String> ASSUMPTIONS = Set.of(
            "org.opentest4j.IncompleteExecutionException",
            "org.junit.internal.AssumptionViolatedException",
            "org.testng.SkipException");

    private final List<ThrowableReader> readers;
    private final UserCode userCode;
    private final Shortener shortener;

    /** Whether a throwable was read, and all that it takes is loaded. Plain: two threads at once may both look for stack. */
    private boolean hasRead;

    private FailureReader(List<ThrowableReader> readers, UserCode userCode, Shortener shortener) {
        this.readers = readers;
        this.userCode = userCode;
        this.shortener = shortener;
    }

    /** With every reader that can be loaded; one that cannot be is a problem, and the others still read. */
    public static FailureReader withInstalledReaders(
            Consumer<String> problems, UserCode userCode, Shortener shortener) {
        List<ThrowableReader> readers = Services.of(
                ServiceLoader.load(ThrowableReader.class, ThrowableReader.class.getClassLoader()), problems);
        if (OpenTest4jReader.canRead()) readers.add(new OpenTest4jReader());
        return new FailureReader(readers, userCode, shortener);
    }

    public Outcome outcome(Throwable thrown) {
        ThrowableReader.Reading reading = read(thrown);
        if (reading != null) return reading.outcome();
        if (isAssumption(thrown)) return Outcome.ABORTED;
        return thrown instanceof AssertionError ? Outcome.FAILED : Outcome.ERRORED;
    }

    /** By name: one may be thrown under a framework that is not its own, whose adapter is not there. */
    private static boolean isAssumption(Throwable thrown) {
        for (Class<?> type = thrown.getClass(); type != null; type = type.getSuperclass())
            if (ASSUMPTIONS.contains(type.getName())) return true;
        return false;
    }

    /**
     * All that {@code thrown} says.
     *
     * @param written gives the id under which a throwable stands in the journal already, or 0
     * @param others that came after it
     */
    public Failure failure(
            Throwable thrown, int id, ToIntFunction<Throwable> written, List<? extends Throwable> others) {
        Failure failure = failure(thrown, id, written, GATHERED_DEPTH);
        if (others.isEmpty()) return failure;
        List<Failure> all = new ArrayList<>(failure.gathered());
        all.addAll(others(others, written));
        return Failure.of(failure.type(), failure.stack())
                .id(id)
                .message(failure.message())
                .expected(failure.expected())
                .actual(failure.actual())
                .gathered(all)
                .build();
    }

    /** What came after a failure that stands in the journal already. */
    public List<Failure> others(List<? extends Throwable> others, ToIntFunction<Throwable> written) {
        List<Failure> read = new ArrayList<>();
        for (Throwable one : others) {
            if (one == null || read.size() == MAX_GATHERED) continue;
            int known = written.applyAsInt(one);
            read.add(known == 0 ? failure(one, 0, written, 1) : Failure.reference(known));
        }
        return read;
    }

    private Failure failure(Throwable thrown, int id, ToIntFunction<Throwable> written, int depth) {
        ThrowableReader.Reading reading = read(thrown);
        List<Failure> gathered = new ArrayList<>();
        if (depth > 0) {
            for (Throwable one : gathered(thrown, reading)) {
                if (one == null) continue;
                if (gathered.size() == MAX_GATHERED) break; // the message tells how many there are
                int known = written.applyAsInt(one);
                gathered.add(known == 0 ? failure(one, 0, written, depth - 1) : Failure.reference(known));
            }
        }
        String message = reading == null ? null : reading.message();
        var failure = new Failure(
                id,
                thrown.getClass().getName(),
                message == null ? userCode.message(thrown) : message,
                StackTrace.of(thrown, userCode, shortener, below -> written.applyAsInt(below) != 0),
                reading == null ? null : reading.expected(),
                reading == null ? null : reading.actual(),
                gathered);
        hasRead = true;
        return failure;
    }

    private static List<? extends @Nullable Throwable> gathered(
            Throwable thrown, ThrowableReader.@Nullable Reading reading) {
        if (thrown instanceof ChecksFailed checks) return checks.failures();
        return reading == null ? List.of() : reading.gathered();
    }

    /** Null where no reader knows its type. */
    private ThrowableReader.@Nullable Reading read(Throwable thrown) {
        if (!hasRead) StackSpace.ensureForFirstCall();
        if (thrown instanceof ValuesDiffer values)
            return ThrowableReader.Reading.of(Outcome.FAILED)
                    .expected(values.expected())
                    .actual(values.actual())
                    .build();
        for (ThrowableReader reader : readers) {
            // A value whose toString throws must not cost the stack trace; the next reader may know.
            Optional<ThrowableReader.Reading> reading =
                    userCode.asked(() -> reader.read(thrown), broken -> Optional.empty());
            if (reading != null && reading.isPresent() && reading.get().outcome() != null) return reading.get();
        }
        return null;
    }
}
