package dev.verbale.event;

import java.util.Arrays;
import java.util.stream.Stream;

/**
 * One line of a journal. More kinds may come: whoever goes through them keeps a branch for those that it does not know.
 *
 * @since 0.2.0
 */
public sealed interface Event
        permits JournalOpened,
                Event.InScope,
                Event.OfBegun,
                FactStated,
                ProblemMet,
                EventsMissed,
                JournalEnded,
                ChecksumWritten {

    /** Microseconds since the journal was opened, from a monotonic clock; never negative. */
    long at();

    /** All kinds, {@link UnknownEvent} among them, in the order in which they are documented. */
    static Stream<Class<?>> kinds() {
        return kinds(Event.class);
    }

    private static Stream<Class<?>> kinds(Class<?> type) {
        return type.isInterface()
                ? Arrays.stream(type.getPermittedSubclasses()).flatMap(Event::kinds)
                : Stream.of(type);
    }

    /**
     * Belongs to what began before: happened in it, or began in it.
     *
     * @since 0.2.0
     */
    sealed interface InScope extends Event
            permits Event.Begins,
                    CheckMade,
                    LogWritten,
                    DataNamed,
                    ExchangeMade,
                    AttachmentPending,
                    AttachmentStored,
                    UnknownEvent {

        /** The id of the step, test or container that it belongs to, or 0 for the run. */
        int in();
    }

    /**
     * Begins something that others belong to.
     *
     * @since 0.2.0
     */
    sealed interface Begins extends InScope permits ContainerStarted, TestStarted, StepStarted {

        /** By which they name it; unique in its journal. */
        int id();
    }

    /**
     * Says more of what began before: how it ended, or what it is about.
     *
     * @since 0.2.0
     */
    sealed interface OfBegun extends Event
            permits ContainerEnded, TestIdentified, TestEnded, AboutStated, StepBudgeted, StepEnded {

        /** The id of the step, test or container. */
        int id();
    }
}
