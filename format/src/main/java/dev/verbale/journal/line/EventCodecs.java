package dev.verbale.journal.line;

import dev.verbale.event.Event;
import dev.verbale.event.UnknownEvent;
import dev.verbale.stack.StackSpace;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * How each kind of event becomes a line and comes back. Who writes has those at once that every run needs, those of steps when the
 * first step or line comes, and the others when the first such event comes: each class that is loaded is paid by every JVM, and
 * most suites never send a request or check anything by the recorder.
 */
public final class EventCodecs {

    /** The codecs that were needed so far. Replaced by a larger one; two threads at once may each make the same. */
    private static volatile Map<Class<?>, EventCodec<?>> known = byType(List.of(
            new JournalOpenedCodec(),
            new ContainerStartedCodec(),
            new ContainerEndedCodec(),
            new TestStartedCodec(),
            new TestEndedCodec(),
            new ProblemMetCodec(),
            new EventsMissedCodec(),
            new JournalEndedCodec(),
            new ChecksumWrittenCodec()));

    private EventCodecs() {}

    private static List<EventCodec<?>> ofSteps() {
        return List.of(
                new StepStartedCodec(),
                new StepEndedCodec(),
                new LogWrittenCodec(),
                new AttachmentStoredCodec(),
                new FactStatedCodec());
    }

    private static List<EventCodec<?>> others() {
        return List.of(
                new TestIdentifiedCodec(),
                new AboutStatedCodec(),
                new StepBudgetedCodec(),
                new CheckMadeCodec(),
                new DataNamedCodec(),
                new ExchangeMadeCodec(),
                new AttachmentPendingCodec());
    }

    private static Map<Class<?>, EventCodec<?>> byType(List<EventCodec<?>> codecs) {
        Map<Class<?>, EventCodec<?>> byType = new HashMap<>();
        for (EventCodec<?> codec : codecs) byType.put(codec.type(), codec);
        return byType;
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
        EventCodec<?> codec = known.get(type);
        return codec == null ? later(type) : codec;
    }

    /**
     * Where a stack is nearly at its end, it ends before anything is loaded: a class whose initialization ends in it is lost to the
     * JVM.
     */
    private static @Nullable EventCodec<?> later(Class<?> type) {
        StackSpace.ensureForFirstCall();
        EventCodec<?> codec = withMore(ofSteps()).get(type);
        return codec == null ? withMore(others()).get(type) : codec;
    }

    private static Map<Class<?>, EventCodec<?>> withMore(List<EventCodec<?>> codecs) {
        Map<Class<?>, EventCodec<?>> more = byType(codecs);
        more.putAll(known); // those that are there stay the same
        known = more;
        return more;
    }

    static @Nullable EventCodec<?> ofWord(String word) {
        return Documented.BY_WORD.get(word);
    }

    /** What who reads or documents needs, and nobody who writes. */
    private static final class Documented {

        static final List<EventCodec<?>> EVENTS = Event.kinds()
                .filter(type -> type != UnknownEvent.class)
                .<EventCodec<?>>map(type -> Objects.requireNonNull(ofOrNull(type), type::getName))
                .toList();

        static final List<ObjectCodec<?>> OBJECTS = List.of(
                FailureCodec.CODEC,
                TextPieceCodec.CODEC,
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
