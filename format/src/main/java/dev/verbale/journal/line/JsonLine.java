package dev.verbale.journal.line;

import dev.verbale.json.TextFilter;
import dev.verbale.json.WellFormedText;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.core.JsonGenerator;

/** A line while it is written. */
final class JsonLine {

    final JsonGenerator json;
    private final TextFilter filter;
    private final RepeatedTexts repeated;

    /** What got its id in this line. */
    final List<TextPiece> fresh = new ArrayList<>();

    JsonLine(JsonGenerator json, TextFilter filter, RepeatedTexts repeated) {
        this.json = json;
        this.filter = filter;
        this.repeated = repeated;
    }

    /** The pieces of a filtered text; empty where it repeats nothing. */
    List<TextPiece> pieces(String text) {
        return repeated.pieces(text, fresh);
    }

    /** As it may be written: masked, and without halves of characters, which no UTF-8 can hold. */
    String filtered(String text) {
        return WellFormedText.of(filter.filtered(text));
    }
}
