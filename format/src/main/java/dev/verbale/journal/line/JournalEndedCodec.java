package dev.verbale.journal.line;

import dev.verbale.event.JournalEnded;
import java.util.List;
import java.util.Map;

/** Lines of {@link JournalEnded}. */
final class JournalEndedCodec extends EventCodec<JournalEnded> {

    private final NumberField missing = number("missing", "how much could not be recorded", 0, Long.MAX_VALUE, null);
    private final NumbersField missingByKind = numbers("missingByKind", "as in `events-missed`", Long.MAX_VALUE);
    private final NumberField overhead = microsOrZero(
            "overhead",
            "microseconds that recording took of the recording threads' time, estimated: what may be slow is timed, the rest is from a sample");

    JournalEndedCodec() {
        super(JournalEnded.class, "journal-ended", "The JVM ended in order. Late events may follow.");
    }

    @Override
    void write(JsonLine line, JournalEnded event) {
        missing.write(line, event.missing());
        missingByKind.write(line, event.missingByKind());
        overhead.write(line, event.overhead());
    }

    @Override
    JournalEnded read(Fields fields) {
        return new JournalEnded(at(fields), missing.read(fields), missingByKind.read(fields), overhead.read(fields));
    }

    @Override
    public List<JournalEnded> samples() {
        return List.of(new JournalEnded(10, 2, Map.of("log", 2L), 7), new JournalEnded(10, 0, Map.of(), 0));
    }
}
