package dev.verbale.journal.line;

import java.util.LinkedHashMap;
import java.util.Map;

/** Texts by name; left out where there is none. */
final class TextsByNameField extends Field {

    TextsByNameField(String name, String meaning) {
        super(name, meaning, false);
    }

    void write(JsonLine line, Map<String, String> texts) {
        if (texts.isEmpty()) return;
        line.json.writeName(json);
        line.json.writeStartObject();
        texts.forEach((key, value) -> line.json.writeStringProperty(line.filtered(key), line.filtered(value)));
        line.json.writeEndObject();
    }

    Map<String, String> read(Fields fields) {
        Fields object = fields.objectOrNull(name());
        if (object == null) return Map.of();
        Map<String, String> texts = new LinkedHashMap<>();
        for (String key : object.names()) texts.put(key, object.text(key));
        return texts;
    }

    @Override
    public String schema() {
        return "{\"type\": \"object\", \"additionalProperties\": {\"type\": \"string\"}}";
    }
}
