package dev.verbale.journal.line;

import dev.verbale.vocabulary.StepArgument;
import java.util.List;

/** What stands below a step. */
final class StepArgumentCodec extends ObjectCodec<StepArgument> {

    static final StepArgumentCodec CODEC = new StepArgumentCodec();
    static final StepArgument SAMPLE =
            new StepArgument("two lines", List.of(List.of("crop", "bed"), List.of("Kale", "2")));

    private final TextField text = optionalText("text", "of several lines");
    private final ObjectsField<List<String>> rows = objects("rows", "of a table, from the top", TableRowCodec.CODEC);

    private StepArgumentCodec() {
        super("argument", "What stands below a step in plain language: a table, or a text.");
    }

    @Override
    void write(JsonLine line, StepArgument argument) {
        text.write(line, argument.text());
        rows.write(line, argument.rows());
    }

    @Override
    StepArgument read(Fields fields) {
        return new StepArgument(text.readOrNull(fields), rows.read(fields));
    }
}
