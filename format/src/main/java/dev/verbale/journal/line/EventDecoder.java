package dev.verbale.journal.line;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.Event;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.UnknownEvent;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;

/** Turns lines into events. */
public final class EventDecoder {

    private EventDecoder() {}

    /**
     * What a line holds.
     *
     * @param repeated names of fields that stand in one object more than once
     * @param unknown what this version does not know and passes over or shows as it is, such as {@code field log.mood}
     */
    public record Decoded(Event event, Set<String> repeated, Set<String> unknown) {}

    /**
     * The event in the first {@code length} bytes, with nothing before them. One of a kind that this version does not know is an {@link UnknownEvent}.
     *
     * @throws MalformedLine where there is none
     */
    public static Decoded decode(byte[] bytes, int length) {
        return decode(bytes, 0, length, new KnownPieces());
    }

    static Decoded decode(byte[] bytes, int from, int length, KnownPieces pieces) {
        try {
            return decode(Fields.parse(bytes, from, length, pieces), bytes, from, length);
        } catch (MalformedLine known) {
            throw known;
        } catch (JacksonException broken) {
            throw new MalformedLine("not JSON: " + broken.getOriginalMessage());
        } catch (RuntimeException odd) { // lines come from strangers, and one of them must not cost a run
            throw new MalformedLine("cannot be read (" + odd + ")");
        }
    }

    /** The event of which {@code fields} were read from there. */
    static Decoded decode(Fields fields, byte[] bytes, int from, int length) {
        try {
            String word = fields.text(EventCodec.EVENT);
            EventCodec<?> codec = EventCodecs.ofWord(word);
            if (codec == null)
                return unknown(word, fields.as(word), new String(bytes, from, length, StandardCharsets.UTF_8));
            Event event = codec.read(fields.as(word));
            return new Decoded(event, fields.repeated(), news(event, codec, fields));
        } catch (MalformedLine known) {
            throw known;
        } catch (IllegalArgumentException | ArithmeticException | DateTimeException unfit) {
            throw new MalformedLine(String.valueOf(unfit.getMessage()));
        } catch (RuntimeException odd) {
            throw new MalformedLine("cannot be read (" + odd + ")");
        }
    }

    private static Set<String> news(Event event, EventCodec<?> codec, Fields fields) {
        var unknown = new UnknownFields();
        codec.unknown(fields, unknown);
        String word = unknownWord(event);
        if (unknown.names().isEmpty() && word == null) return Set.of(); // as of nearly every line
        Set<String> news = new TreeSet<>();
        for (String name : unknown.names()) news.add("the field " + name);
        if (word != null) news.add(word);
        return news;
    }

    private static Decoded unknown(String word, Fields fields, String json) {
        var event =
                new UnknownEvent(fields.micros(EventCodec.AT), word, number(fields, "id"), number(fields, "in"), json);
        return new Decoded(event, fields.repeated(), Set.of("the event " + word));
    }

    /** Of an event that nobody knows; what is no such number stands for nothing. */
    private static int number(Fields fields, String name) {
        try {
            Long number = fields.numberOrNull(name);
            return number == null || number < 0 || number > Integer.MAX_VALUE ? 0 : number.intValue();
        } catch (MalformedLine something) {
            return 0;
        }
    }

    private static @Nullable String unknownWord(Event event) {
        Outcome outcome = outcome(event);
        if (outcome != null && !outcome.isKnown()) return "the outcome " + outcome.word();
        boolean isNewKind = event instanceof StepStarted step && !step.kind().isKnown();
        return isNewKind ? "the kind of step " + ((StepStarted) event).kind().word() : null;
    }

    private static @Nullable Outcome outcome(Event event) {
        if (event instanceof StepEnded step) return step.outcome();
        if (event instanceof TestEnded test) return test.outcome();
        if (event instanceof ContainerEnded container) return container.outcome();
        return event instanceof CheckMade check ? check.outcome() : null;
    }
}
