package dev.verbale.journal.line;

import dev.verbale.event.Event;
import java.nio.charset.StandardCharsets;
import java.util.List;
import tools.jackson.core.io.SerializedString;

/**
 * How a kind of event becomes a line and comes back.
 *
 * @param <E> the events
 */
public abstract class EventCodec<E extends Event> extends Codec<E> {

    static final String EVENT = "event";
    static final String AT = "at";

    private final Class<E> type;
    private final Head head;

    EventCodec(Class<E> type, String word, String meaning) {
        super(word, meaning);
        this.type = type;
        this.head = new Head(word);
    }

    /** The class of its events. */
    public final Class<E> type() {
        return type;
    }

    /** Some of them: with all fields, and with as few as may be. The first has every field. */
    public abstract List<E> samples();

    final void writeEvent(JsonLine line, Event event) {
        line.json.writeName(head);
        line.json.writeNumber(event.at());
        write(line, type.cast(event));
    }

    static long at(Fields fields) {
        return fields.micros(AT);
    }

    @Override
    final boolean knows(String name) {
        return name.equals(EVENT) || name.equals(AT) || super.knows(name);
    }

    /** The two fields with which each line begins, as far as they are known before: to the generator they are one name. */
    private static final class Head extends SerializedString {

        private static final long serialVersionUID = 1;

        Head(String word) {
            super(word);
            _quotedUTF8Ref = (EVENT + "\":\"" + word + "\",\"" + AT).getBytes(StandardCharsets.UTF_8);
        }
    }
}
