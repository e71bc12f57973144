package dev.verbale.journal.line;

import dev.verbale.event.Failure;
import java.util.List;

/** A failure, or where it stands already. */
final class FailureCodec extends ObjectCodec<Failure> {

    static final FailureCodec CODEC = new FailureCodec();

    /** One that others refer to, with all its fields. */
    static final Failure SAMPLE = Failure.of("org.opentest4j.MultipleFailuresError", "at a")
            .id(7)
            .message("two")
            .expected("Ada")
            .actual("Dario")
            .gathered(List.of(Failure.of("java.lang.AssertionError", "at b").build()))
            .build();

    private static final int GATHERED_DEPTH = 3;

    private final NumberField id =
            optionalId("id", "a number of its own, by which later events of the journal refer to it");
    private final TextField type =
            optionalText("type", "the throwable's class; left out where `id` refers to an earlier one");
    private final LongText message = optionalLongText("message", "");
    private final LongText expected = optionalLongText("expected", "the expected value, where the assertion has it");
    private final LongText actual = optionalLongText("actual", "the actual value, where the assertion has it");
    private final LongText stack = optionalLongText("stack", "the stack trace with its causes, as the JVM prints it");
    private final ObjectsField<Failure> gathered =
            objects("gathered", "the failures that this one reports together, or that came after it", this);

    private FailureCodec() {
        super("failure", "Why something did not pass.");
    }

    @Override
    void write(JsonLine line, Failure failure) {
        write(line, failure, GATHERED_DEPTH);
    }

    private void write(JsonLine line, Failure failure, int depth) {
        id.write(line, failure.id());
        if (!failure.isReference()) {
            type.write(line, failure.type());
            message.write(line, failure.message());
            expected.write(line, failure.expected());
            actual.write(line, failure.actual());
            stack.write(line, failure.stack());
        }
        if (failure.gathered().isEmpty() || depth == 0) return;
        line.json.writeName(gathered.json);
        line.json.writeStartArray();
        for (Failure one : failure.gathered()) {
            line.json.writeStartObject();
            write(line, one, depth - 1);
            line.json.writeEndObject();
        }
        line.json.writeEndArray();
    }

    @Override
    Failure read(Fields fields) {
        int number = id.readInt(fields);
        if (number != 0 && type.readOrNull(fields) == null)
            return Failure.of("", "").id(number).gathered(gathered.read(fields)).build();
        String throwable = type.read(fields);
        String text = message.readOrNull(
                fields); // in the order in which they were written: pieces come first where they are whole
        String wanted = expected.readOrNull(fields);
        String got = actual.readOrNull(fields);
        String trace = stack.readOrNull(fields);
        return new Failure(number, throwable, text, trace == null ? "" : trace, wanted, got, gathered.read(fields));
    }
}
