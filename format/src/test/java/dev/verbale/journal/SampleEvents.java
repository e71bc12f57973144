package dev.verbale.journal;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
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
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** Events of every kind, with all their fields and with as few as may be. */
final class SampleEvents {

    static final JournalOpened OPENED = new JournalOpened(
            JournalFormat.VERSION, "worker-1", Instant.parse("2026-11-24T10:31:07.123456Z"), 42, "1.0");

    private static final Failure INNER = new Failure("java.lang.AssertionError", null, "at b", null, null, List.of());
    private static final Failure FAILURE =
            new Failure(7, "org.opentest4j.MultipleFailuresError", "two", "at a", "Ada", "Dario", List.of(INNER));

    private SampleEvents() {}

    private static ExchangeMade.Body text(String text) {
        return new ExchangeMade.Body("application/json", 20, 90, text, true, null, List.of(), null);
    }

    static Stream<Event> all() {
        return Stream.of(
                OPENED,
                new ContainerStarted(5, 1, 0, "dev.orto.RotaTest", "Rota", "dev.orto.RotaTest", null),
                new ContainerStarted(5, 2, 1, "dev.orto.RotaTest.swaps(int)", "swaps", "dev.orto.RotaTest", "swaps"),
                new ContainerEnded(9, 1, Outcome.ERRORED, "why", FAILURE, 3),
                new ContainerEnded(9, 1, Outcome.PASSED, null, null, 0),
                new TestStarted(5, 2, 1, "k", "swaps \"two\" days", "c", "m", "main", List.of("api", "smoke")),
                new TestStarted(5, 2, 0, "k", "n", null, null, "main", List.of()),
                new TestEnded(8, 2, Outcome.FAILED, null, FAILURE),
                new TestEnded(8, 2, Outcome.SKIPPED, "next season", null),
                new StepStarted(6, 3, 2, StepKind.SET_UP, "open", null),
                new StepStarted(6, 3, 0, StepKind.ACTION, "open", "pool-1"),
                new StepEnded(7, 3, Outcome.SKIPPED, "no card reader", null),
                new StepEnded(7, 3, Outcome.UNFINISHED, null, FAILURE),
                new StepBudgeted(7, 3, 500_000),
                new CheckMade(7, 3, "the gate", Outcome.FAILED, FAILURE, 0),
                new CheckMade(7, 3, "the answer", Outcome.PASSED, null, 12),
                new LogWritten(7, 3, "warn", "dev.orto.Gate", "stuck", "pool-1", Map.of("user", "ada"), FAILURE),
                new LogWritten(7, 0, "info", "root", "plain", null, Map.of(), null),
                new ExchangeMade(
                        7,
                        12,
                        3,
                        "JDK HttpClient",
                        "POST",
                        "https://orto.example/seeds",
                        "HTTP/2",
                        4_200,
                        Map.of("connect", 900L),
                        new ExchangeMade.Message(
                                List.of(new ExchangeMade.Header("Accept", "*/*"), new ExchangeMade.Header("a", "")),
                                text("{\"seed\":1}")),
                        201,
                        new ExchangeMade.Message(
                                List.of(),
                                new ExchangeMade.Body(
                                        "multipart/mixed",
                                        9,
                                        9,
                                        null,
                                        false,
                                        "tests/a/b/02-b.png",
                                        List.of(
                                                new ExchangeMade.Part("note", null, text("sown")),
                                                new ExchangeMade.Part("photo", "bed.png", text(""))),
                                        "a coding nobody here reads")),
                        "cut",
                        "pool-1",
                        new ExchangeMade.Trace("4bf92f3577b34da6a3ce929d0e0e4736", "https://traces.example/4bf9"),
                        Map.of("attempt", "2")),
                new ExchangeMade(
                        7,
                        0,
                        0,
                        "",
                        "ASK",
                        "tcp://gate",
                        null,
                        1,
                        Map.of(),
                        new ExchangeMade.Message(List.of(), null),
                        0,
                        null,
                        null,
                        null,
                        null,
                        Map.of()),
                new PaperPromised(7, 3, 9, "video", "attachment"),
                new TestDescribed(
                        7,
                        2,
                        "about",
                        "grave",
                        "Ada",
                        List.of(new TestDescribed.Link("GARDEN-17", "https://x"), new TestDescribed.Link("b", null))),
                new TestDescribed(7, 2, null, null, null, List.of()),
                new NoteWritten(6, 3, "tab\t, quote \", newline \n, NUL \0, U+2028 \u2028, \uD83C\uDF31, ä", null),
                new NoteWritten(6, 0, "", "pool-1"),
                new PaperKept(
                        6, 3, "rota", PaperKept.SCREENSHOT, "image/png", "tests/a/b/01-rota.png", 12, "ab12", 9, 5),
                new PaperKept(6, 0, "rota", PaperKept.ATTACHMENT, "text/csv", "run/01-rota.csv", 12, null, 0),
                new DataNamed(6, 2, "plot", "12"),
                new FactStated(6, "browser", "Chromium"),
                new ProblemMet(6, "disk full"),
                new EventsMissed(9, Map.of("note", 2L, "deleted", 40L)),
                new StepEnded(7, 3, Outcome.FAILED, null, Failure.reference(7)),
                new JournalEnded(10, 2, Map.of("note", 2L), 7),
                new JournalEnded(10, 0, Map.of(), 0));
    }
}
