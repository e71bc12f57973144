package dev.verbale.journal.line;

import java.util.List;

/** A list of texts; left out where it is empty. */
final class TextsField extends Field {

    TextsField(String name, String meaning) {
        super(name, meaning, false);
    }

    void write(JsonLine line, List<String> texts) {
        if (texts.isEmpty()) return;
        line.json.writeName(json);
        line.json.writeStartArray();
        for (String text : texts) line.json.writeString(line.filtered(text));
        line.json.writeEndArray();
    }

    List<String> read(Fields fields) {
        return fields.texts(name());
    }

    @Override
    public String schema() {
        return "{\"type\": \"array\", \"items\": {\"type\": [\"string\", \"number\", \"boolean\", \"null\"]}}";
    }
}
