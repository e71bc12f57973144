package dev.verbale.event;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * The last line of a journal whose JVM ended in order; late events may still follow it.
 *
 * @param missing how much could not be recorded
 * @param missingByKind the same by what they were, as in {@link EventsMissed}; empty where none is missing
 * @param overhead microseconds that recording took of the recording threads' time, estimated: what is slow is timed,
 *     what is quick from a sample of the calls
 * @since 0.2.0
 */
public record JournalEnded(long at, long missing, Map<String, Long> missingByKind, long overhead) implements Event {

    public JournalEnded {
        missingByKind = Collections.unmodifiableMap(new TreeMap<>(missingByKind));
    }
}
