package dev.verbale.journal.line;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A text that may be long and like others: a field that has it, or one that has its pieces. */
final class LongText {

    private final TextField whole;
    private final ObjectsField<TextPiece> pieces;

    LongText(TextField whole, ObjectsField<TextPiece> pieces) {
        this.whole = whole;
        this.pieces = pieces;
    }

    void write(JsonLine line, @Nullable String text) {
        if (text == null) return;
        String filtered = line.filtered(text); // before it is taken apart: a secret may reach over lines
        List<TextPiece> parts = line.pieces(filtered);
        if (parts.isEmpty()) {
            line.json.writeName(whole.json);
            line.json.writeString(filtered);
        } else pieces.write(line, parts);
    }

    @Nullable
    String readOrNull(Fields fields) {
        List<TextPiece> parts = pieces.read(fields);
        return parts.isEmpty() ? whole.readOrNull(fields) : fields.known.whole(parts);
    }
}
