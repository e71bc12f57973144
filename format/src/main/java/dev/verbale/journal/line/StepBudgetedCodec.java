package dev.verbale.journal.line;

import dev.verbale.event.StepBudgeted;
import java.util.List;

/** Lines of {@link StepBudgeted}. */
final class StepBudgetedCodec extends EventCodec<StepBudgeted> {

    private final NumberField id = id("id", "of the step");
    private final NumberField micros =
            number("micros", "how long it should take at the most", 1, NumberField.LONGEST_MICROS, null);

    StepBudgetedCodec() {
        super(StepBudgeted.class, "step-budget", "A step is given a time to keep to.");
    }

    @Override
    void write(JsonLine line, StepBudgeted event) {
        id.write(line, event.id());
        micros.write(line, event.micros());
    }

    @Override
    StepBudgeted read(Fields fields) {
        return new StepBudgeted(at(fields), id.readInt(fields), micros.read(fields));
    }

    @Override
    public List<StepBudgeted> samples() {
        return List.of(new StepBudgeted(7, 3, 500_000));
    }
}
