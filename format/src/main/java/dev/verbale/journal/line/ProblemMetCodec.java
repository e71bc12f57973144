package dev.verbale.journal.line;

import dev.verbale.event.ProblemMet;
import java.util.List;

/** Lines of {@link ProblemMet}. */
final class ProblemMetCodec extends EventCodec<ProblemMet> {

    private final TextField text = text("text", "what was tried and what went wrong");

    ProblemMetCodec() {
        super(ProblemMet.class, "problem", "Recording itself met a problem; the suite went on.");
    }

    @Override
    void write(JsonLine line, ProblemMet event) {
        text.write(line, event.text());
    }

    @Override
    ProblemMet read(Fields fields) {
        return new ProblemMet(at(fields), text.read(fields));
    }

    @Override
    public List<ProblemMet> samples() {
        return List.of(new ProblemMet(6, "disk full"));
    }
}
