package dev.verbale.journal.line;

import dev.verbale.json.TextFilter;
import dev.verbale.json.WellFormedText;
import tools.jackson.core.JsonGenerator;

/** A line while it is written. */
final class JsonLine {

    final JsonGenerator json;
    private final TextFilter filter;

    JsonLine(JsonGenerator json, TextFilter filter) {
        this.json = json;
        this.filter = filter;
    }

    /** As it may be written: masked, and without halves of characters, which no UTF-8 can hold. */
    String filtered(String text) {
        return WellFormedText.of(filter.filtered(text));
    }
}
