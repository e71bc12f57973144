package dev.verbale.history;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One test over many runs.
 *
 * @param key the same in every run
 * @param name as it was called last
 * @param appearances in the order of the runs' times; runs that did not have it are not in there
 * @since 0.2.0
 */
public record TestHistory(String key, String name, List<Appearance> appearances) {

    public TestHistory {
        appearances = List.copyOf(appearances);
    }

    /** Where its present failing began; null where it does not fail in its newest run. */
    public @Nullable Appearance failingSince() {
        Appearance since = null;
        for (int i = appearances.size() - 1; i >= 0; i--) {
            Appearance one = appearances.get(i);
            if (one.failed()) since = one;
            else if (one.passed()) break;
            else if (since == null) return null; // skipped now
        }
        return since;
    }

    /** When it passed last; null where it never did. */
    public @Nullable Appearance lastPassed() {
        for (int i = appearances.size() - 1; i >= 0; i--) if (appearances.get(i).passed()) return appearances.get(i);
        return null;
    }

    /** One letter a run, the oldest first: {@code .} passed, {@code F} failed, {@code ~} passed on a later attempt, {@code -} neither. */
    public String row() {
        var row = new StringBuilder();
        for (Appearance one : appearances)
            row.append(one.failed() ? 'F' : one.recovered() ? '~' : one.passed() ? '.' : '-');
        return row.toString();
    }
}
