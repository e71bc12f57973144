package dev.verbale.journal.line;

import org.jspecify.annotations.Nullable;

/** A text, which goes through the filter that masks. One that may be left out stands for nothing where it is. */
final class TextField extends Field {

    TextField(String name, String meaning, boolean required) {
        super(name, meaning, required);
    }

    void write(JsonLine line, @Nullable String text) {
        if (text == null) return;
        line.json.writeName(json);
        line.json.writeString(line.filtered(text));
    }

    String read(Fields fields) {
        return fields.text(name());
    }

    @Nullable
    String readOrNull(Fields fields) {
        return fields.textOrNull(name());
    }

    @Override
    public String schema() {
        return "{\"type\": \"string\"}";
    }
}
