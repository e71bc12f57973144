package dev.verbale.event;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * The last line of a journal whose JVM ended in order; late events may still follow it.
 *
 * @param missing how many events could not be written
 * @param missingByKind the same by what they were, such as {@code NoteWritten}; empty where none is missing
 * @param cost microseconds that recording took of the recording threads' time, from a sample of the calls
 */
public record JournalEnded(long at, long missing, Map<String, Long> missingByKind, long cost) implements Event {

    public JournalEnded {
        missingByKind = Collections.unmodifiableMap(new TreeMap<>(missingByKind));
    }
}
