package dev.verbale.journal.line;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.Event;
import dev.verbale.event.Outcome;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.UnknownEvent;
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
     * The event in the first {@code length} bytes. One of a kind that this version does not know is an {@link UnknownEvent}.
     *
     * @throws MalformedLine where there is none
     */
    public static Decoded decode(byte[] bytes, int length) {
        try {
            Fields fields = Fields.parse(bytes, length);
            String word = fields.text(EventCodec.EVENT);
            EventCodec<?> codec = EventCodecs.ofWord(word);
            if (codec == null)
                return unknown(word, fields.as(word), new String(bytes, 0, length, StandardCharsets.UTF_8));
            Event event = codec.read(fields.as(word));
            var unknown = new UnknownFields();
            codec.unknown(fields, unknown);
            Set<String> news = new TreeSet<>();
            for (String name : unknown.names()) news.add("the field " + name);
            addWords(event, news);
            return new Decoded(event, fields.repeated(), news);
        } catch (MalformedLine known) {
            throw known;
        } catch (JacksonException broken) {
            throw new MalformedLine("not JSON: " + broken.getOriginalMessage());
        } catch (IllegalArgumentException | ArithmeticException | DateTimeException unfit) {
            throw new MalformedLine(String.valueOf(unfit.getMessage()));
        } catch (RuntimeException odd) { // lines come from strangers, and one of them must not cost a run
            throw new MalformedLine("cannot be read (" + odd + ")");
        }
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

    private static void addWords(Event event, Set<String> news) {
        Outcome outcome = outcome(event);
        if (outcome != null && !outcome.isKnown()) news.add("the outcome " + outcome.word());
        if (event instanceof StepStarted step && !step.kind().isKnown())
            news.add("the kind of step " + step.kind().word());
    }

    private static @Nullable Outcome outcome(Event event) {
        if (event instanceof StepEnded step) return step.outcome();
        if (event instanceof TestEnded test) return test.outcome();
        if (event instanceof ContainerEnded container) return container.outcome();
        return event instanceof CheckMade check ? check.outcome() : null;
    }
}
