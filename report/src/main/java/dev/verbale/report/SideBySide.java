package dev.verbale.report;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

/** Does what needs nothing of each other on as many processors as there are: a large page is half of it processor time. */
final class SideBySide {

    private SideBySide() {}

    /** A part of the work. */
    @FunctionalInterface
    interface Part {
        void run() throws IOException;
    }

    /**
     * All of them have ended when it returns, however.
     *
     * @throws IOException what the first part threw that threw something; runtime exceptions likewise
     */
    static void run(List<Part> parts) throws IOException {
        List<Throwable> failed =
                parts.parallelStream().flatMap(part -> failure(part).stream()).toList();
        if (failed.isEmpty()) return;
        Throwable first = failed.get(0);
        for (Throwable other : failed.subList(1, failed.size())) first.addSuppressed(other);
        if (first instanceof IOException unreadable) throw unreadable;
        if (first instanceof RuntimeException unexpected) throw unexpected;
        throw (Error) first;
    }

    /** Caught here, since a stream would end at the first one and leave the others at work. */
    private static Optional<Throwable> failure(Part part) {
        try {
            part.run();
            return Optional.empty();
        } catch (IOException | RuntimeException | Error failed) {
            return Optional.of(failed);
        }
    }
}
