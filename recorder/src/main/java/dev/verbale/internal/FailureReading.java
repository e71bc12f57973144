package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.recorder.ThrowableReader;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;

/** Turns throwables into failures and outcomes, with the help of the {@link ThrowableReader}s that are there. */
final class FailureReading {

    private static final int GATHERED_DEPTH = 3;
    private static final int MOST_GATHERED = 200;

    private final List<ThrowableReader> readers;
    private final Foreign foreign;
    private final Shortening shortening;

    private FailureReading(List<ThrowableReader> readers, Foreign foreign, Shortening shortening) {
        this.readers = readers;
        this.foreign = foreign;
        this.shortening = shortening;
    }

    /** With every reader that can be loaded; one that cannot be is a problem, and the others still read. */
    static FailureReading withInstalledReaders(Problems problems, Foreign foreign, Shortening shortening) {
        List<ThrowableReader> readers = new ArrayList<>();
        Iterator<ThrowableReader> found = ServiceLoader.load(
                        ThrowableReader.class, ThrowableReader.class.getClassLoader())
                .iterator();
        while (true) {
            try {
                if (!found.hasNext()) break;
                readers.add(found.next());
            } catch (ServiceConfigurationError | LinkageError absent) {
                problems.add("loading the readers of throwables: " + absent);
            }
        }
        return new FailureReading(readers, foreign, shortening);
    }

    Outcome outcome(Throwable thrown) {
        ThrowableReader.Reading reading = read(thrown);
        if (reading != null) return reading.outcome();
        return thrown instanceof AssertionError ? Outcome.FAILED : Outcome.ERRORED;
    }

    /**
     * All that {@code thrown} tells.
     *
     * @param written gives the id under which a throwable stands in the journal already, or 0
     */
    Failure failure(Throwable thrown, int id, ToIntFunction<Throwable> written) {
        return failure(thrown, id, written, GATHERED_DEPTH);
    }

    private Failure failure(Throwable thrown, int id, ToIntFunction<Throwable> written, int depth) {
        ThrowableReader.Reading reading = read(thrown);
        List<Failure> gathered = new ArrayList<>();
        if (depth > 0) {
            for (Throwable one : gathered(thrown, reading)) {
                if (one == null) continue;
                if (gathered.size() == MOST_GATHERED) break; // the message tells how many there are
                int known = written.applyAsInt(one);
                gathered.add(known == 0 ? failure(one, 0, written, depth - 1) : Failure.reference(known));
            }
        }
        String message = reading == null ? null : reading.message();
        return new Failure(
                id,
                thrown.getClass().getName(),
                message == null ? foreign.message(thrown) : message,
                StackTrace.of(thrown, foreign, shortening, below -> written.applyAsInt(below) != 0),
                reading == null ? null : reading.expected(),
                reading == null ? null : reading.actual(),
                gathered);
    }

    private static List<? extends @Nullable Throwable> gathered(
            Throwable thrown, ThrowableReader.@Nullable Reading reading) {
        if (thrown instanceof ChecksFailed checks) return checks.failures();
        return reading == null || reading.gathered() == null ? List.of() : reading.gathered();
    }

    /** Null where no reader knows its type. */
    private ThrowableReader.@Nullable Reading read(Throwable thrown) {
        for (ThrowableReader reader : readers) {
            // A value whose toString throws must not cost the stack trace; the next reader may know.
            Optional<ThrowableReader.Reading> reading =
                    foreign.asked(() -> reader.read(thrown), broken -> Optional.empty());
            if (reading != null && reading.isPresent() && reading.get().outcome() != null) return reading.get();
        }
        return null;
    }
}
