package dev.verbale.journal.line;

import dev.verbale.event.EventsMissed;
import java.util.List;
import java.util.Map;

/** Lines of {@link EventsMissed}. */
final class EventsMissedCodec extends EventCodec<EventsMissed> {

    private final NumbersField missingByKind = numbers(
            "missingByKind",
            "all that is missing in this journal so far, counted by the event's word; `deleted` counts the events of a journal that somebody deleted while it was written, `stack` what was given up because a thread's stack or the memory was at its end",
            Long.MAX_VALUE);

    EventsMissedCodec() {
        super(
                EventsMissed.class,
                "events-missed",
                "Something could not be recorded and this line could: there is room again. The last such line counts.");
    }

    @Override
    void write(JsonLine line, EventsMissed event) {
        missingByKind.write(line, event.byKind());
    }

    @Override
    EventsMissed read(Fields fields) {
        return new EventsMissed(at(fields), missingByKind.read(fields));
    }

    @Override
    public List<EventsMissed> samples() {
        return List.of(new EventsMissed(9, Map.of("log", 2L, "deleted", 40L)));
    }
}
