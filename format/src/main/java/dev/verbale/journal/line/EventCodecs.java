package dev.verbale.journal.line;

import dev.verbale.event.Event;
import dev.verbale.event.UnknownEvent;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * How each kind of event becomes a line and comes back. Who writes has those at once that nearly every run needs, and the others
 * when the first such event comes: most suites never send a request or check anything by the recorder, and each class that is
 * loaded is paid by every JVM.
 */
public final class EventCodecs {

    private static final Map<Class<?>, EventCodec<?>> USUAL = byType(List.of(
            new JournalOpenedCodec(),
            new ContainerStartedCodec(),
            new ContainerEndedCodec(),
            new TestStartedCodec(),
            new TestEndedCodec(),
            new StepStartedCodec(),
            new StepEndedCodec(),
            new LogWrittenCodec(),
            new AttachmentStoredCodec(),
            new FactStatedCodec(),
            new ProblemMetCodec(),
            new EventsMissedCodec(),
            new JournalEndedCodec()));

    /** Null until one of them is needed. Two threads at once may each make them. */
    private static volatile @Nullable Map<Class<?>, EventCodec<?>> others;

    private EventCodecs() {}

    private static Map<Class<?>, EventCodec<?>> others() {
        Map<Class<?>, EventCodec<?>> known = others;
        if (known != null) return known;
        Map<Class<?>, EventCodec<?>> fresh = byType(List.of(
                new TestIdentifiedCodec(),
                new AboutStatedCodec(),
                new StepBudgetedCodec(),
                new CheckMadeCodec(),
                new DataNamedCodec(),
                new ExchangeMadeCodec(),
                new AttachmentPendingCodec()));
        others = fresh;
        return fresh;
    }

    private static Map<Class<?>, EventCodec<?>> byType(List<EventCodec<?>> codecs) {
        Map<Class<?>, EventCodec<?>> byType = new HashMap<>();
        for (EventCodec<?> codec : codecs) byType.put(codec.type(), codec);
        return byType;
    }

    /** Of the kinds that nearly every run has. */
    public static Iterable<EventCodec<?>> usual() {
        return USUAL.values();
    }

    /** Of every kind of event, in the order in which they are documented. */
    public static List<EventCodec<?>> all() {
        return Documented.EVENTS;
    }

    /** Of every kind of object inside of events. */
    public static List<ObjectCodec<?>> objects() {
        return Documented.OBJECTS;
    }

    /** What journals call the kind of {@code event}, such as {@code step-started}. */
    public static String word(Event event) {
        return of(event).word();
    }

    static EventCodec<?> of(Event event) {
        EventCodec<?> codec = ofOrNull(event.getClass());
        if (codec == null) throw new IllegalArgumentException("nobody writes " + event.getClass());
        return codec;
    }

    private static @Nullable EventCodec<?> ofOrNull(Class<?> type) {
        EventCodec<?> usual = USUAL.get(type);
        return usual != null ? usual : others().get(type);
    }

    static @Nullable EventCodec<?> ofWord(String word) {
        return Documented.BY_WORD.get(word);
    }

    /** What who reads or documents needs, and nobody who writes. */
    private static final class Documented {

        static final List<EventCodec<?>> EVENTS = Arrays.stream(Event.class.getPermittedSubclasses())
                .filter(type -> type != UnknownEvent.class)
                .<EventCodec<?>>map(type -> Objects.requireNonNull(ofOrNull(type), type::getName))
                .toList();

        static final List<ObjectCodec<?>> OBJECTS = List.of(
                FailureCodec.CODEC,
                LinkCodec.CODEC,
                StepArgumentCodec.CODEC,
                TableRowCodec.CODEC,
                RequestCodec.CODEC,
                ResponseCodec.CODEC,
                HeaderCodec.CODEC,
                BodyCodec.CODEC,
                BodyCodec.CODEC.partCodec,
                TraceCodec.CODEC);

        static final Map<String, EventCodec<?>> BY_WORD =
                EVENTS.stream().collect(Collectors.toUnmodifiableMap(EventCodec::word, codec -> codec));
    }
}
