package dev.verbale.results;

import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One thing that happened in a test, a container or the run. More kinds may come: whoever goes through them keeps a branch for
 * those that it does not know.
 *
 * @since 0.2.0
 */
public sealed interface Entry {

    /** When it was recorded, by the wall clock that its journal began with and a monotonic clock from there. */
    Instant at();

    /**
     * A step.
     *
     * @param duration until its end, or until the last thing known of it where it is unfinished
     * @param budget how long it should take at the most, or null
     * @param reason why it was skipped
     * @param failure on the innermost step that saw it
     * @param thread where it belongs to no test
     * @param argument the table or text below it, or null
     * @param entries what happened in it, in order
     */
    record StepEntry(
            Instant at,
            StepKind kind,
            String name,
            Outcome outcome,
            Duration duration,
            @Nullable Duration budget,
            @Nullable String reason,
            @Nullable Failure failure,
            @Nullable String thread,
            @Nullable StepArgument argument,
            List<Entry> entries)
            implements Entry {
        public StepEntry {
            entries = List.copyOf(entries);
        }
    }

    /**
     * A line, of the test itself or of a logger.
     *
     * @param written what the journal says of it, with its failure whole
     */
    record LogEntry(Instant at, LogWritten written) implements Entry {

        /** In small letters; null where the test itself said none. */
        public @Nullable String level() {
            return written.level();
        }

        /** The logger's name; null where the test itself logged. */
        public @Nullable String logger() {
            return written.logger();
        }

        public String text() {
            return written.text();
        }

        /** Where it is not the test's own. */
        public @Nullable String thread() {
            return written.thread();
        }

        /** What the logger knew of its surroundings. */
        public Map<String, String> context() {
            return written.context();
        }

        public @Nullable Failure failure() {
            return written.failure();
        }
    }

    /**
     * A request and its response.
     *
     * @param files of its bodies, by the names that {@code made} has for them; without those that are missing, or lie outside
     *     the run folder
     */
    record ExchangeEntry(Instant at, ExchangeMade made, Map<String, Path> files) implements Entry {

        public ExchangeEntry {
            files = Map.copyOf(files);
        }

        /** The exchanges among {@code entries} and in their steps, in their order. */
        public static List<ExchangeEntry> in(List<Entry> entries) {
            List<ExchangeEntry> found = new ArrayList<>();
            gather(entries, found);
            return found;
        }

        private static void gather(List<Entry> entries, List<ExchangeEntry> found) {
            for (Entry entry : entries) {
                if (entry instanceof ExchangeEntry exchange) found.add(exchange);
                gather(Entry.inside(entry), found);
            }
        }

        /** From sending to the end of the response; zero where nobody knows. */
        public Duration duration() {
            return Duration.ofNanos(made.timing().microsOrZero() * 1_000);
        }

        /** Where a body's file is; null where it has none, or it is missing. */
        public @Nullable Path file(ExchangeMade.Body body) {
            return body.file() == null ? null : files.get(body.file());
        }
    }

    /**
     * Something that was checked while the test went on.
     *
     * @param exchange the id of the one whose response was checked, or 0 where nobody said one; see {@link ExchangeChecks}
     * @param actual the value that was found, whether it passed or failed; null where the check said none
     */
    record CheckEntry(
            Instant at,
            String name,
            Outcome outcome,
            @Nullable Failure failure,
            int exchange,
            @Nullable String actual) implements Entry {

        /** One that says no value. */
        public CheckEntry(Instant at, String name, Outcome outcome, @Nullable Failure failure, int exchange) {
            this(at, name, outcome, failure, exchange, failure == null ? null : failure.actual());
        }
    }

    /** A named value. */
    record DataEntry(Instant at, String name, String value) implements Entry {}

    /**
     * An attachment.
     *
     * @param kind one of those in {@link dev.verbale.vocabulary.AttachmentKind}, or a word of a newer format
     * @param stored what the journal says of its file
     * @param file where it is, or null where it is missing or lies outside the run folder
     * @param begins of an attachment that has a time of its own, such as a video, when that begins; null otherwise
     */
    record AttachmentEntry(
            Instant at,
            String name,
            String kind,
            StoredFile stored,
            @Nullable Path file,
            @Nullable Instant begins) implements Entry {

        /** The last one of {@code kind} among {@code entries} and in their steps whose file is there; null where there is none. */
        public static @Nullable AttachmentEntry last(List<Entry> entries, String kind) {
            AttachmentEntry last = null;
            for (Entry entry : entries) {
                AttachmentEntry found = entry instanceof AttachmentEntry one
                        ? (one.kind().equals(kind) && one.file() != null ? one : null)
                        : last(Entry.inside(entry), kind);
                if (found != null) last = found;
            }
            return last;
        }
    }

    /** An attachment that was to come later and never did. */
    record PendingEntry(Instant at, String name, String kind) implements Entry {}

    /**
     * Something of a later version, as it stands in the journal.
     *
     * @param word what the journal calls its kind
     * @param json the whole line
     * @param entries what belongs to it, in order
     */
    record UnknownEntry(Instant at, String word, String json, List<Entry> entries) implements Entry {
        public UnknownEntry {
            entries = List.copyOf(entries);
        }
    }

    /** What lies in {@code entry}; nothing in most. */
    static List<Entry> inside(Entry entry) {
        if (entry instanceof StepEntry step) return step.entries();
        return entry instanceof UnknownEntry unknown ? unknown.entries() : List.of();
    }
}
