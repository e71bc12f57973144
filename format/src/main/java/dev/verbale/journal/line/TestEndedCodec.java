package dev.verbale.journal.line;

import dev.verbale.event.Failure;
import dev.verbale.event.TestEnded;
import dev.verbale.vocabulary.Outcome;
import java.util.List;

/** Lines of {@link TestEnded}. */
final class TestEndedCodec extends EventCodec<TestEnded> {

    private final NumberField id = id("id", "of the test");
    private final WordField outcome = word("outcome", "see below");
    private final TextField reason = reason();
    private final ObjectField<Failure> failure = optionalObject("failure", "", FailureCodec.CODEC);
    private final TextsField blockedBy =
            texts("blockedBy", "the keys of the tests or containers because of which it was not run");

    TestEndedCodec() {
        super(
                TestEnded.class,
                "test-ended",
                "A test ends. The line may come later than `at` says: some frameworks say nothing after the last tear-down.");
    }

    @Override
    void write(JsonLine line, TestEnded event) {
        id.write(line, event.id());
        outcome.write(line, event.outcome().word());
        reason.write(line, event.reason());
        failure.write(line, event.failure());
        blockedBy.write(line, event.blockedBy());
    }

    @Override
    TestEnded read(Fields fields) {
        return new TestEnded(
                at(fields),
                id.readInt(fields),
                Outcome.ofWord(outcome.read(fields)),
                reason.readOrNull(fields),
                failure.readOrNull(fields),
                blockedBy.read(fields));
    }

    @Override
    public List<TestEnded> samples() {
        return List.of(
                new TestEnded(8, 2, Outcome.FAILED, "why", FailureCodec.SAMPLE, List.of("k#1")),
                TestEnded.of(8, 2, Outcome.SKIPPED).reason("next season").build());
    }
}
