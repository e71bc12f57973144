package dev.verbale.report;

import dev.verbale.results.Entry;
import dev.verbale.vocabulary.Outcome;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is left out of a page, for its size or for who reads it. The run keeps it all.
 *
 * @param leftOut parts; nothing is left out where it is empty
 * @param minLevel of the log lines that are in it, such as {@code INFO}; lines of a level that is none of {@link #LEVELS} are always in
 *     it; null for all
 * @since 0.2.0
 */
public record PageContent(Set<Part> leftOut, @Nullable String minLevel) {

    /** Everything. */
    public static final PageContent ALL = new PageContent(Set.of(), null);

    /** The levels of logs, the least first. */
    public static final List<String> LEVELS = List.of("TRACE", "DEBUG", "INFO", "WARN", "ERROR");

    /** A part that can be left out. */
    public enum Part {
        /** What happened in tests that passed. Their rows stay. */
        PASSED,
        /** What was stated of where the run was made. */
        ENVIRONMENT
    }

    /** @throws IllegalArgumentException where {@code minLevel} is none of {@link #LEVELS} */
    public PageContent {
        leftOut = Set.copyOf(leftOut);
        if (minLevel != null) {
            minLevel = minLevel.strip().toUpperCase(Locale.ROOT);
            if (!LEVELS.contains(minLevel))
                throw new IllegalArgumentException(
                        "the level '" + minLevel + "' is none; write one of " + String.join(", ", LEVELS));
        }
    }

    /**
     * Of settings, which are texts.
     *
     * @param leftOut words between commas: {@code passed}, {@code environment}; empty for nothing
     * @param minLevel of log lines; empty for all
     * @throws IllegalArgumentException where a word is none of these
     */
    public static PageContent of(String leftOut, String minLevel) {
        Set<Part> parts = EnumSet.noneOf(Part.class);
        for (String word : leftOut.split(",")) if (!word.isBlank()) parts.add(part(word.strip()));
        return new PageContent(parts, minLevel.isBlank() ? null : minLevel);
    }

    private static Part part(String word) {
        for (Part part : Part.values()) if (part.name().equalsIgnoreCase(word)) return part;
        throw new IllegalArgumentException("'" + word + "' cannot be left out; write passed or environment");
    }

    boolean hasEnvironment() {
        return !leftOut.contains(Part.ENVIRONMENT);
    }

    /** Whether what happened in a test of this outcome is in the page. */
    boolean hasDetails(Outcome outcome) {
        return !outcome.equals(Outcome.PASSED) || !leftOut.contains(Part.PASSED);
    }

    boolean has(Entry entry) {
        if (minLevel == null || !(entry instanceof Entry.LogEntry log) || log.level() == null) return true;
        int level = LEVELS.indexOf(log.level().toUpperCase(Locale.ROOT));
        return level < 0 || level >= LEVELS.indexOf(minLevel);
    }
}
