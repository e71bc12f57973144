package dev.verbale.journal.line;

import org.jspecify.annotations.Nullable;

/** A text of ours, in which there is nothing to hide. */
final class WordField extends Field {

    private final String schema;

    WordField(String name, String meaning, boolean required, String schema) {
        super(name, meaning, required);
        this.schema = schema;
    }

    void write(JsonLine line, @Nullable String word) {
        if (word == null) return;
        line.json.writeName(json);
        line.json.writeString(word);
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
        return schema;
    }
}
