package dev.verbale.engine;

import dev.verbale.engine.failure.FailureReader;
import dev.verbale.journal.JournalWriter;
import dev.verbale.secrets.Redactor;

/**
 * Goes through everything once before the run, and writes nothing: the first real event is cheap then, and an event in a
 * shutdown hook finds every class loaded, where loading one may be too late.
 */
final class WarmUp {

    private WarmUp() {}

    static void of(JournalWriter journal, Redactor redactor, FailureReader failures) {
        failures.failure(new IllegalStateException("warming up"), 1, one -> 0);
        journal.warmUp();
        redactor.redacted("plot 12");
    }
}
