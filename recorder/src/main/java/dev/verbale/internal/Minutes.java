package dev.verbale.internal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.ProblemMet;
import dev.verbale.journal.JournalWriter;
import java.io.IOException;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.LongAdder;
import org.jspecify.annotations.Nullable;

/** Brings events into the journal, and counts those that do not get there. */
final class Minutes {

    final MonotonicClock clock = new MonotonicClock();
    final Problems problems = new Problems(this::problem);

    private final Map<String, LongAdder> missing = new ConcurrentHashMap<>();
    private @Nullable JournalWriter journal;

    /** From now on events are written; problems that were met before are only printed. */
    void open(JournalWriter writer) {
        journal = writer;
    }

    void append(Event event) {
        IOException unwritten = appended(event);
        if (unwritten != null) problems.add("writing to the journal", unwritten);
    }

    /** The disk that refused the cause of a problem refuses the problem too: that is counted and no problem again. */
    private void problem(String text) {
        appended(new ProblemMet(clock.micros(), text));
    }

    private @Nullable IOException appended(Event event) {
        JournalWriter writer = journal;
        if (writer == null) return null;
        try {
            writer.append(event);
            return null;
        } catch (IOException unwritten) {
            missed(event.getClass().getSimpleName());
            return unwritten;
        }
    }

    /** Something of this kind should have been recorded and could not be. */
    void missed(String kind) {
        missing.computeIfAbsent(kind, k -> new LongAdder()).increment();
    }

    void end(long costNanos) throws IOException {
        Map<String, Long> byKind = new TreeMap<>();
        missing.forEach((kind, count) -> byKind.put(kind, count.sum()));
        long all = byKind.values().stream().mapToLong(Long::longValue).sum();
        append(new JournalEnded(clock.micros(), all, byKind, costNanos / 1_000));
        if (journal != null) journal.sync();
    }
}
