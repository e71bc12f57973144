package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Where something stood that never ended.
 *
 * @param open the steps that were open, the outermost first; empty where it was between two steps
 * @param finished the step in there that ended last; null where none did
 * @since 0.2.0
 */
public record LastMoment(List<String> open, @Nullable String finished) {

    public LastMoment {
        open = List.copyOf(open);
    }

    /** Of the test whose entries these are. */
    public static LastMoment of(List<Entry> entries) {
        List<String> open = new ArrayList<>();
        String finished = null;
        List<Entry> inside = entries;
        while (true) {
            Entry.StepEntry unfinished = null;
            for (Entry entry : inside) {
                if (!(entry instanceof Entry.StepEntry step)) continue;
                if (step.outcome().equals(Outcome.UNFINISHED)) unfinished = step;
                else finished = step.name();
            }
            if (unfinished == null) return new LastMoment(open, finished);
            open.add(unfinished.name());
            inside = unfinished.entries();
        }
    }

    /** Such as {@code last in: Swap › Choose; after: Open the rota}, or nothing where there was no step. */
    public String sentence() {
        String in = open.isEmpty() ? "" : "last in: " + String.join(" › ", open);
        String after = finished == null ? "" : (open.isEmpty() ? "last step that ended: " : "after: ") + finished;
        return in.isEmpty() || after.isEmpty() ? in + after : in + "; " + after;
    }
}
