package dev.verbale.journal.line;

/** A part of a long text, which stands once where others repeat it. */
final class TextPieceCodec extends ObjectCodec<TextPiece> {

    static final TextPieceCodec CODEC = new TextPieceCodec();

    private final NumberField id =
            optionalId("id", "a number of its own among the pieces of its journal, by which later lines mean it");
    private final TextField text = optionalText("text", "left out where an earlier line has it under that `id`");

    private TextPieceCodec() {
        super("piece", "A part of a long text, one behind the other. What many texts share stands once in a journal.");
    }

    @Override
    void write(JsonLine line, TextPiece piece) {
        id.write(line, piece.id());
        if (piece.text() == null) return;
        line.json.writeName(text.json);
        line.json.writeString(piece.text()); // of a text that was filtered as a whole
    }

    @Override
    TextPiece read(Fields fields) {
        return new TextPiece(id.readInt(fields), text.readOrNull(fields));
    }
}
