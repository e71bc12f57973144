package dev.verbale.journal.line;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.util.List;

/** Lines of {@link ContainerEnded}. */
final class ContainerEndedCodec extends EventCodec<ContainerEnded> {

    private final NumberField id = id("id", "of the container");
    private final WordField outcome = word("outcome", "see below");
    private final TextField reason = reason();
    private final ObjectField<Failure> failure = optionalObject("failure", "", FailureCodec.CODEC);
    private final NumberField notRun =
            number("notRun", "how many of its tests were never started because of that", 1, Integer.MAX_VALUE, 0L);

    ContainerEndedCodec() {
        super(
                ContainerEnded.class,
                "container-ended",
                "A container ends. Its outcome is its own, such as that of its set-up, whatever its tests did.");
    }

    @Override
    void write(JsonLine line, ContainerEnded event) {
        id.write(line, event.id());
        outcome.write(line, event.outcome().word());
        reason.write(line, event.reason());
        failure.write(line, event.failure());
        notRun.write(line, event.notRun());
    }

    @Override
    ContainerEnded read(Fields fields) {
        return new ContainerEnded(
                at(fields),
                id.readInt(fields),
                Outcome.ofWord(outcome.read(fields)),
                reason.readOrNull(fields),
                failure.readOrNull(fields),
                notRun.readInt(fields));
    }

    @Override
    public List<ContainerEnded> samples() {
        return List.of(
                new ContainerEnded(9, 1, Outcome.ERRORED, "why", FailureCodec.SAMPLE, 3),
                new ContainerEnded(9, 1, Outcome.PASSED, null, null, 0));
    }
}
