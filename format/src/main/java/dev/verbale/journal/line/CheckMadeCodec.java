package dev.verbale.journal.line;

import dev.verbale.event.CheckMade;
import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.util.List;

/** Lines of {@link CheckMade}. */
final class CheckMadeCodec extends EventCodec<CheckMade> {

    private final NumberField in = belongsTo();
    private final TextField name = text("name", "what a reader sees");
    private final WordField outcome = word("outcome", "see below");
    private final NumberField exchange = optionalId(
            "exchange",
            "the exchange whose response was checked. Where none is named, it is the last exchange of the test that was over, unless a step of a browser began in between");
    private final TextField actual = optionalText(
            "actual",
            "the value that was found, where the check says it; that of one that failed stands in its failure");
    private final ObjectField<Failure> failure = optionalObject("failure", "", FailureCodec.CODEC);

    CheckMadeCodec() {
        super(CheckMade.class, "check", "Something was checked, and the test went on.");
    }

    @Override
    void write(JsonLine line, CheckMade event) {
        in.write(line, event.in());
        name.write(line, event.name());
        outcome.write(line, event.outcome().word());
        exchange.write(line, event.exchange());
        actual.write(line, event.actual());
        failure.write(line, event.failure());
    }

    @Override
    CheckMade read(Fields fields) {
        return new CheckMade(
                at(fields),
                in.readInt(fields),
                name.read(fields),
                Outcome.ofWord(outcome.read(fields)),
                failure.readOrNull(fields),
                exchange.readInt(fields),
                actual.readOrNull(fields));
    }

    @Override
    public List<CheckMade> samples() {
        return List.of(
                new CheckMade(7, 3, "the gate", Outcome.FAILED, FailureCodec.SAMPLE, 12, "6.0"),
                new CheckMade(7, 0, "the response", Outcome.PASSED, null, 0, "6.3"));
    }
}
