package dev.verbale.journal.line;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.event.TestEnded;
import java.util.List;

/** Lines of {@link TestEnded}. */
final class TestEndedCodec extends EventCodec<TestEnded> {

    private final NumberField id = id("id", "of the test");
    private final WordField outcome = word("outcome", "see below");
    private final TextField reason = reason();
    private final ObjectField<Failure> failure = optionalObject("failure", "", () -> FailureCodec.CODEC);

    TestEndedCodec() {
        super(TestEnded.class, "test-ended", "A test ends.");
    }

    @Override
    void write(JsonLine line, TestEnded event) {
        id.write(line, event.id());
        outcome.write(line, event.outcome().word());
        reason.write(line, event.reason());
        failure.write(line, event.failure());
    }

    @Override
    TestEnded read(Fields fields) {
        return new TestEnded(
                at(fields),
                id.readInt(fields),
                Outcome.ofWord(outcome.read(fields)),
                reason.readOrNull(fields),
                failure.readOrNull(fields));
    }

    @Override
    public List<TestEnded> samples() {
        return List.of(
                new TestEnded(8, 2, Outcome.FAILED, "why", FailureCodec.SAMPLE),
                new TestEnded(8, 2, Outcome.SKIPPED, "next season", null));
    }
}
