package dev.verbale.journal.line;

import dev.verbale.event.Failure;
import dev.verbale.event.StepEnded;
import dev.verbale.vocabulary.Outcome;
import java.util.List;

/** Lines of {@link StepEnded}. */
final class StepEndedCodec extends EventCodec<StepEnded> {

    private final NumberField id = id("id", "of the step");
    private final WordField outcome = word("outcome", "see below");
    private final TextField reason = reason();
    private final ObjectField<Failure> failure = optionalObject("failure", "", FailureCodec.CODEC);

    StepEndedCodec() {
        super(
                StepEnded.class,
                "step-ended",
                "A step ends. Its outcome may also be `unfinished`: its end came without one. The innermost step that saw a failure has it, and those around it only the outcome.");
    }

    @Override
    void write(JsonLine line, StepEnded event) {
        id.write(line, event.id());
        outcome.write(line, event.outcome().word());
        reason.write(line, event.reason());
        failure.write(line, event.failure());
    }

    @Override
    StepEnded read(Fields fields) {
        return new StepEnded(
                at(fields),
                id.readInt(fields),
                Outcome.ofWord(outcome.read(fields)),
                reason.readOrNull(fields),
                failure.readOrNull(fields));
    }

    @Override
    public List<StepEnded> samples() {
        return List.of(
                new StepEnded(7, 3, Outcome.UNFINISHED, "left open", FailureCodec.SAMPLE),
                new StepEnded(7, 3, Outcome.SKIPPED, "no card reader", null),
                new StepEnded(7, 3, Outcome.FAILED, null, Failure.reference(7)));
    }
}
