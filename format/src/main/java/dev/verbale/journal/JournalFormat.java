package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.journal.line.EventCodecs;

/**
 * What every journal has in common.
 *
 * @since 0.2.0
 */
public final class JournalFormat {

    /** The version that this code writes. Readers of version 1 also read later ones, and show what they do not know as it is. */
    public static final int VERSION = 1;

    /** How journal files end. */
    public static final String FILE_SUFFIX = ".jsonl";

    private JournalFormat() {}

    /** What journals call the kind of {@code event}, such as {@code step-started}. */
    public static String word(Event event) {
        return EventCodecs.word(event);
    }
}
