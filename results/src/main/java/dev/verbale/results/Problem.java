package dev.verbale.results;

/**
 * Something that a reader of the run has to know about the run's own files, or that recording itself met.
 *
 * @param file below the run folder
 * @param line counted from 1, or 0 where it is about the whole file
 * @since 0.2.0
 */
public record Problem(String file, int line, String what) {

    /** Such as {@code journals/worker-1.jsonl:118: unknown event 'retry'}. */
    public String sentence() {
        return file + (line > 0 ? ":" + line : "") + ": " + what;
    }
}
