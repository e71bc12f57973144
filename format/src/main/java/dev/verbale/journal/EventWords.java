package dev.verbale.journal;

import dev.verbale.event.Event;
import java.util.Locale;

/** What journals call the kinds of events. */
public final class EventWords {

    private EventWords() {}

    /** Such as {@code step-started}. */
    public static String of(Event event) {
        return switch (event.getClass().getSimpleName()) {
            case "NoteWritten" -> "note";
            case "LogWritten" -> "log";
            case "CheckMade" -> "check";
            case "DataNamed" -> "data";
            case "FactStated" -> "fact";
            case "ProblemMet" -> "problem";
            case "PaperKept" -> "paper";
            case "ExchangeMade" -> "exchange";
            case "StepBudgeted" -> "step-budget";
            default ->
                event.getClass()
                        .getSimpleName()
                        .replaceAll("(?<=[a-z])(?=[A-Z])", "-")
                        .toLowerCase(Locale.ROOT);
        };
    }
}
