package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalOpened;
import dev.verbale.journal.line.EventCodecs;
import java.util.stream.Stream;

/** Events of every kind, with all their fields and with as few as may be. */
final class SampleEvents {

    static final JournalOpened OPENED =
            (JournalOpened) EventCodecs.all().get(0).samples().get(0);

    private SampleEvents() {}

    static Stream<Event> all() {
        return EventCodecs.all().stream().flatMap(codec -> codec.samples().stream());
    }
}
