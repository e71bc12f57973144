package dev.verbale.journal.line;

import dev.verbale.event.Event;
import dev.verbale.json.JsonOut;
import dev.verbale.json.TextFilter;
import org.jspecify.annotations.Nullable;

/**
 * Turns events into lines. Belongs to one thread at a time, so that its buffer and its generator can be reused: a new
 * generator for each event costs half as much again as the rest of the encoding.
 */
public final class EventEncoder {

    /** What a buffer may keep between events; one giant line must not hold its memory for the rest of the run. */
    private static final int KEPT_BYTES = 1 << 16;

    private final TextFilter filter;
    private final RepeatedTexts repeated;
    private LineBuffer buffer = new LineBuffer();
    private @Nullable JsonLine line;

    /**
     * @param filter what every text passes through before it is written
     * @param repeated of the journal into which its lines go
     */
    public EventEncoder(TextFilter filter, RepeatedTexts repeated) {
        this.filter = filter;
        this.repeated = repeated;
    }

    /** The line that was encoded last stands in the journal: later ones may mean what it has. */
    public void written() {
        if (line != null && !line.fresh.isEmpty()) repeated.written(line.fresh);
    }

    /** The event as one line with its newline; valid until the next call. */
    public LineBuffer encode(Event event) {
        try {
            return encoded(event);
        } catch (Throwable midway) {
            line = null; // its generator stands in the middle of an object
            throw midway;
        }
    }

    private LineBuffer encoded(Event event) {
        if (buffer.capacity() > KEPT_BYTES) {
            buffer = new LineBuffer();
            line = null;
        }
        buffer.reset();
        JsonLine now = line;
        if (now == null) {
            now = new JsonLine(JsonOut.generator(buffer), filter, repeated);
            line = now;
        }
        now.fresh.clear();
        now.json.writeStartObject();
        EventCodecs.of(event).writeEvent(now, event);
        now.json.writeEndObject();
        now.json.flush();
        buffer.write('\n');
        return buffer;
    }
}
