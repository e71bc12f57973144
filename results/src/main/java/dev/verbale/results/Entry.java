package dev.verbale.results;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.event.StepKind;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** One thing in the minutes of a test, a container or the run. */
public sealed interface Entry {

    /** When it was recorded, by the wall clock that its journal began with and a monotonic clock from there. */
    Instant at();

    /**
     * A step.
     *
     * @param took until its end, or until the last thing known of it where it is unfinished
     * @param budget how long it should take at the most, or null
     * @param reason why it was skipped
     * @param failure on the innermost step that saw it
     * @param thread where it belongs to no test
     * @param entries what happened in it, in order
     */
    record StepEntry(
            Instant at,
            StepKind kind,
            String name,
            Outcome outcome,
            Duration took,
            @Nullable Duration budget,
            @Nullable String reason,
            @Nullable Failure failure,
            @Nullable String thread,
            List<Entry> entries)
            implements Entry {
        public StepEntry {
            entries = List.copyOf(entries);
        }
    }

    /**
     * A line.
     *
     * @param thread where it belongs to no test
     */
    record NoteEntry(Instant at, String text, @Nullable String thread) implements Entry {}

    /**
     * What a logger wrote.
     *
     * @param thread where it is not the test's own
     */
    record LogEntry(
            Instant at,
            String level,
            String logger,
            String text,
            @Nullable String thread,
            Map<String, String> context,
            @Nullable Failure failure)
            implements Entry {}

    /**
     * A request and its answer.
     *
     * @param files of its bodies, by the names that {@code made} has for them; without those that are missing, or lie outside
     *     the run folder
     */
    record ExchangeEntry(Instant at, ExchangeMade made, Map<String, Path> files) implements Entry {

        public ExchangeEntry {
            files = Map.copyOf(files);
        }

        /** Those among {@code entries} and in their steps, in their order. */
        public static List<ExchangeEntry> in(List<Entry> entries) {
            List<ExchangeEntry> found = new ArrayList<>();
            gather(entries, found);
            return found;
        }

        private static void gather(List<Entry> entries, List<ExchangeEntry> found) {
            for (Entry entry : entries) {
                if (entry instanceof ExchangeEntry exchange) found.add(exchange);
                if (entry instanceof StepEntry step) gather(step.entries(), found);
            }
        }

        /** From sending to the end of the answer; zero where nobody knows. */
        public Duration took() {
            return Duration.ofNanos(Math.max(0, made.micros()) * 1_000);
        }

        /** Where a body's file is; null where it has none, or it is missing. */
        public @Nullable Path file(ExchangeMade.Body body) {
            return body.file() == null ? null : files.get(body.file());
        }
    }

    /**
     * Something that was checked while the test went on.
     *
     * @param about the id of the exchange whose answer was checked, or 0 where nobody said one; see {@link ExchangeChecks}
     */
    record CheckEntry(
            Instant at,
            String name,
            Outcome outcome,
            @Nullable Failure failure,
            int about) implements Entry {}

    /** A named value. */
    record DataEntry(Instant at, String name, String value) implements Entry {}

    /**
     * A paper.
     *
     * @param kind one of those in {@link dev.verbale.event.PaperKept}, or a word of a newer format
     * @param nameInJournal where the journal says it is
     * @param file where it is, or null where it is missing or lies outside the run folder
     * @param size in bytes, as recorded
     * @param came false where it was promised and never kept
     * @param begins of a paper that has a time of its own, such as a video, when that begins; null otherwise
     */
    record PaperEntry(
            Instant at,
            String name,
            String kind,
            String mediaType,
            String nameInJournal,
            @Nullable Path file,
            long size,
            boolean came,
            @Nullable Instant begins)
            implements Entry {}
}
