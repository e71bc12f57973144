package dev.verbale.event;

/**
 * One line of a journal.
 *
 * @since 0.2.0
 */
public sealed interface Event
        permits JournalOpened,
                ContainerStarted,
                ContainerEnded,
                TestStarted,
                TestIdentified,
                TestEnded,
                AboutStated,
                StepStarted,
                StepBudgeted,
                StepEnded,
                CheckMade,
                LogWritten,
                DataNamed,
                ExchangeMade,
                AttachmentPending,
                AttachmentStored,
                FactStated,
                ProblemMet,
                EventsMissed,
                JournalEnded,
                UnknownEvent {

    /** Microseconds since the journal was opened, from a monotonic clock; never negative. */
    long at();
}
