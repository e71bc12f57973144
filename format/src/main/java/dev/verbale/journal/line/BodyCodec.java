package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Part;

/** A body of a request or a response. */
final class BodyCodec extends ObjectCodec<Body> {

    static final BodyCodec CODEC = new BodyCodec();

    final PartCodec partCodec = new PartCodec(this);

    private final TextField mediaType = text("mediaType", "with its parameters; empty where nobody said it");
    private final NumberField size =
            number("size", "bytes on the wire, -1 where nobody knows", -1, Long.MAX_VALUE, null);
    private final NumberField decoded =
            number("decoded", "bytes once its coding was undone; left out where that is `size`", 1, Long.MAX_VALUE, 0L);
    private final LongText text = optionalLongText("text", "where there is a `file` too, the beginning of that");
    private final NumberField cut = number("cut", "1 where all that was kept is only the beginning", 1, 1, 0L);
    private final TextField file = optionalText("file", "a path below the run folder, with forward slashes");
    private final ObjectsField<Part> parts = objects("parts", "of a form with files and its kin", partCodec);
    private final TextField leftOut = optionalText("leftOut", "why nothing of it is kept");

    private BodyCodec() {
        super("body", "A body of a request or a response.");
    }

    @Override
    void write(JsonLine line, Body body) {
        mediaType.write(line, body.mediaType());
        size.write(line, body.size());
        if (body.decoded() != body.size()) decoded.write(line, body.decoded());
        text.write(line, body.text());
        cut.write(line, body.isCut() ? 1 : 0);
        file.write(line, body.file());
        parts.write(line, body.parts());
        leftOut.write(line, body.leftOut());
    }

    @Override
    Body read(Fields fields) {
        long bytes = size.read(fields);
        long undone = decoded.read(fields);
        return new Body(
                mediaType.read(fields),
                bytes,
                undone == 0 ? bytes : undone,
                text.readOrNull(fields),
                cut.read(fields) == 1,
                file.readOrNull(fields),
                parts.read(fields),
                leftOut.readOrNull(fields));
    }
}
