package dev.verbale.event;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * Something could not be recorded until now, and this line can: written when there is room again. Each such line holds all
 * that is missing in its journal so far, so the last one counts.
 *
 * @param byKind how much is missing of what, by the events' own words, such as {@code log}; {@code deleted} counts the
 *     events of a journal that somebody deleted during the run, and {@code stack} what a stack overflow cost
 * @since 0.2.0
 */
public record EventsMissed(long at, Map<String, Long> byKind) implements Event {

    public EventsMissed {
        byKind = Collections.unmodifiableMap(new TreeMap<>(byKind));
    }
}
