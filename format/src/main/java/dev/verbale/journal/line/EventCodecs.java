package dev.verbale.journal.line;

import dev.verbale.event.Event;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** All kinds of events, in the order in which they are documented. */
public final class EventCodecs {

    private static final List<EventCodec<?>> ALL = List.of(
            new JournalOpenedCodec(),
            new ContainerStartedCodec(),
            new ContainerEndedCodec(),
            new TestStartedCodec(),
            new TestIdentifiedCodec(),
            new TestEndedCodec(),
            new AboutStatedCodec(),
            new StepStartedCodec(),
            new StepBudgetedCodec(),
            new StepEndedCodec(),
            new CheckMadeCodec(),
            new LogWrittenCodec(),
            new DataNamedCodec(),
            new ExchangeMadeCodec(),
            new AttachmentPendingCodec(),
            new AttachmentStoredCodec(),
            new FactStatedCodec(),
            new ProblemMetCodec(),
            new EventsMissedCodec(),
            new JournalEndedCodec());

    /** The objects inside of events. */
    private static final List<ObjectCodec<?>> OBJECTS = List.of(
            FailureCodec.CODEC,
            LinkCodec.CODEC,
            StepArgumentCodec.CODEC,
            TableRowCodec.CODEC,
            RequestCodec.CODEC,
            ResponseCodec.CODEC,
            HeaderCodec.CODEC,
            BodyCodec.CODEC,
            PartCodec.CODEC,
            TraceCodec.CODEC);

    private static final Map<Class<?>, EventCodec<?>> BY_TYPE = new HashMap<>();
    private static final Map<String, EventCodec<?>> BY_WORD = new LinkedHashMap<>();

    static {
        for (EventCodec<?> codec : ALL) {
            BY_TYPE.put(codec.type(), codec);
            BY_WORD.put(codec.word(), codec);
        }
    }

    private EventCodecs() {}

    /** Of every kind of event. */
    public static List<EventCodec<?>> all() {
        return ALL;
    }

    /** Of every kind of object inside of events. */
    public static List<ObjectCodec<?>> objects() {
        return OBJECTS;
    }

    /** What journals call the kind of {@code event}, such as {@code step-started}. */
    public static String word(Event event) {
        return of(event).word();
    }

    static EventCodec<?> of(Event event) {
        EventCodec<?> codec = BY_TYPE.get(event.getClass());
        if (codec == null) throw new IllegalArgumentException("nobody writes " + event.getClass());
        return codec;
    }

    static @Nullable EventCodec<?> ofWord(String word) {
        return BY_WORD.get(word);
    }
}
