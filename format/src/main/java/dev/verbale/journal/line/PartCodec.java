package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Part;

/** One of several parts of a body. */
final class PartCodec extends ObjectCodec<Part> {

    private final TextField name = text("name", "of the form's field; empty where it has none");
    private final TextField fileName = optionalText("fileName", "as the sender called the file");
    private final TextField head = optionalText("head", "its own header lines as they were sent");
    private final ObjectField<Body> body;

    /** @param bodies what writes its body, which may have parts again */
    PartCodec(BodyCodec bodies) {
        super("part", "One of several parts of a body.");
        body = object("body", "", bodies);
    }

    @Override
    void write(JsonLine line, Part part) {
        name.write(line, part.name());
        fileName.write(line, part.fileName());
        head.write(line, part.head());
        body.write(line, part.body());
    }

    @Override
    Part read(Fields fields) {
        return new Part(name.read(fields), fileName.readOrNull(fields), head.readOrNull(fields), body.read(fields));
    }
}
