package dev.verbale.journal.line;

import dev.verbale.event.Event;
import java.util.List;

/**
 * How a kind of event becomes a line and comes back.
 *
 * @param <E> the events
 */
public abstract class EventCodec<E extends Event> extends Codec<E> {

    static final String EVENT = "event";
    static final String AT = "at";

    private final Class<E> type;
    private final LineHead head;

    EventCodec(Class<E> type, String word, String meaning) {
        super(word, meaning);
        this.type = type;
        this.head = new LineHead(word);
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

    // Fields that several events have, with the same meaning in each.

    final NumberField belongsTo() {
        return optionalId("in", "the step, test or container it belongs to; left out for the run");
    }

    final NumberField uniqueId() {
        return id("id", "unique in its journal");
    }

    final TextField reason() {
        return optionalText("reason", "why it was skipped or aborted");
    }

    final TextField shownName() {
        return text("name", "what a reader sees; may change from run to run");
    }

    final TextField key() {
        return text("key", "the identity of a test in every run, on every machine and in every language, see below");
    }

    final TextField className() {
        return optionalText("class", "the class it comes from");
    }

    final TextField methodName() {
        return optionalText("method", "the method it comes from");
    }

    final TextField source() {
        return optionalText("source", "where it is written, as a file and a line, where its class does not say it");
    }

    static long at(Fields fields) {
        return fields.micros(AT);
    }

    @Override
    final boolean knows(String name) {
        return name.equals(EVENT) || name.equals(AT) || super.knows(name);
    }
}
