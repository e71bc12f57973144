package dev.verbale.event;

/** One line of a journal. */
public sealed interface Event
        permits JournalOpened,
                ContainerStarted,
                ContainerEnded,
                TestStarted,
                TestEnded,
                StepStarted,
                StepEnded,
                StepBudgeted,
                CheckMade,
                LogWritten,
                ExchangeMade,
                PaperPromised,
                TestDescribed,
                NoteWritten,
                PaperKept,
                DataNamed,
                FactStated,
                ProblemMet,
                EventsMissed,
                JournalEnded {

    /** Microseconds since the journal was opened, from a monotonic clock; never negative. */
    long at();
}
