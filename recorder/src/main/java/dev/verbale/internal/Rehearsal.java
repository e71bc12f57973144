package dev.verbale.internal;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Message;
import dev.verbale.event.FactStated;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.LogWritten;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.PaperPromised;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.journal.EventWords;
import dev.verbale.journal.JournalWriter;
import dev.verbale.secrets.Redactor;
import java.util.List;
import java.util.Map;

/**
 * Goes through everything once before the run, and writes nothing: the first real event is cheap then, and an event in a
 * shutdown hook finds every class loaded, where loading one may be too late.
 */
final class Rehearsal {

    private Rehearsal() {}

    static void of(JournalWriter journal, Redactor redactor, FailureReading failures) {
        var failure = failures.failure(new IllegalStateException("rehearsed"), 1, one -> 0);
        List<Event> events = List.of(
                new ContainerStarted(0, 1, 0, "", "", null, null),
                new ContainerEnded(0, 1, Outcome.PASSED, null, null, 0),
                new TestStarted(0, 1, 0, "", "", null, null, "", List.of("")),
                new TestEnded(0, 1, Outcome.ERRORED, null, failure),
                new StepStarted(0, 1, 0, StepKind.ACTION, "", null),
                new StepEnded(0, 1, Outcome.PASSED, null, null),
                new NoteWritten(0, 0, "", null),
                new LogWritten(0, 0, "", "", "", null, Map.of(), null),
                new CheckMade(0, 0, "", Outcome.PASSED, null, 0),
                new StepBudgeted(0, 1, 1),
                new TestDescribed(0, 1, "", null, null, List.of(new TestDescribed.Link("", null))),
                new ExchangeMade(
                        0,
                        1,
                        0,
                        "",
                        "",
                        "",
                        null,
                        0,
                        Map.of(),
                        new Message(List.of(), null),
                        0,
                        null,
                        null,
                        null,
                        null,
                        Map.of()),
                new PaperPromised(0, 0, 1, "", ""),
                new PaperKept(0, 0, "", "", "", "", 0, null, 0),
                new DataNamed(0, 0, "", ""),
                new FactStated(0, "", ""),
                new ProblemMet(0, ""),
                new EventsMissed(0, Map.of()),
                new JournalEnded(0, 0, Map.of(), 0));
        for (Event event : events) {
            journal.rehearse(event);
            EventWords.of(event);
        }
        redactor.redacted("plot 12");
    }
}
