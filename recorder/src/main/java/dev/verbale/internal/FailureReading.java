package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.recorder.ThrowableReader;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import org.jspecify.annotations.Nullable;

/** Turns throwables into failures and outcomes, with the help of the {@link ThrowableReader}s that are there. */
final class FailureReading {

    private static final int GATHERED_DEPTH = 3;

    private final List<ThrowableReader> readers;

    private FailureReading(List<ThrowableReader> readers) {
        this.readers = readers;
    }

    /** With every reader that can be loaded; one that cannot be is a problem, and the others still read. */
    static FailureReading withInstalledReaders(Problems problems) {
        List<ThrowableReader> readers = new ArrayList<>();
        Iterator<ThrowableReader> found = ServiceLoader.load(
                        ThrowableReader.class, ThrowableReader.class.getClassLoader())
                .iterator();
        while (true) {
            try {
                if (!found.hasNext()) break;
                readers.add(found.next());
            } catch (ServiceConfigurationError | LinkageError absent) {
                problems.add("loading the readers of throwables", absent);
            }
        }
        return new FailureReading(readers);
    }

    Outcome outcome(Throwable thrown) {
        return read(thrown)
                .map(ThrowableReader.Reading::outcome)
                .orElse(thrown instanceof AssertionError ? Outcome.FAILED : Outcome.ERRORED);
    }

    Failure failure(Throwable thrown) {
        return failure(thrown, GATHERED_DEPTH);
    }

    private Failure failure(Throwable thrown, int depth) {
        Optional<ThrowableReader.Reading> reading = read(thrown);
        List<Failure> gathered = new ArrayList<>();
        if (depth > 0) gathered(thrown, reading).forEach(one -> gathered.add(failure(one, depth - 1)));
        return new Failure(
                thrown.getClass().getName(),
                reading.map(ThrowableReader.Reading::message).orElseGet(() -> message(thrown)),
                stack(thrown),
                reading.map(ThrowableReader.Reading::expected).orElse(null),
                reading.map(ThrowableReader.Reading::actual).orElse(null),
                gathered);
    }

    private static List<? extends Throwable> gathered(Throwable thrown, Optional<ThrowableReader.Reading> reading) {
        if (thrown instanceof ChecksFailed checks) return checks.failures();
        return reading.isPresent() ? reading.get().gathered() : List.of();
    }

    private Optional<ThrowableReader.Reading> read(Throwable thrown) {
        for (ThrowableReader reader : readers) {
            try {
                Optional<ThrowableReader.Reading> reading = reader.read(thrown);
                if (reading.isPresent()) return reading;
            } catch (RuntimeException | LinkageError broken) {
                // a value whose toString throws must not cost the stack trace; the next reader may know
            }
        }
        return Optional.empty();
    }

    private static @Nullable String message(Throwable thrown) {
        try {
            return thrown.getMessage();
        } catch (RuntimeException broken) {
            return "(getMessage threw " + broken.getClass().getName() + ")";
        }
    }

    private static String stack(Throwable thrown) {
        var text = new StringWriter();
        try {
            thrown.printStackTrace(new PrintWriter(text, true));
        } catch (RuntimeException broken) {
            text.append("(printStackTrace threw ")
                    .append(broken.getClass().getName())
                    .append(")\n");
            for (StackTraceElement frame : thrown.getStackTrace())
                text.append("\tat ").append(frame.toString()).append('\n');
        }
        return text.toString();
    }
}
