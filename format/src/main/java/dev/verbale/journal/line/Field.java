package dev.verbale.journal.line;

import tools.jackson.core.io.SerializedString;

/** One field of an object in a journal. */
public abstract class Field {

    /** Encoded once: names are half of the bytes of a line. */
    final SerializedString json;

    private final String meaning;
    private final boolean required;

    Field(String name, String meaning, boolean required) {
        this.json = new SerializedString(name);
        this.meaning = meaning;
        this.required = required;
    }

    /** As it stands in the journal. */
    public final String name() {
        return json.getValue();
    }

    /** What it says, in a few words; empty where its name says it. */
    public final String meaning() {
        return meaning;
    }

    /** Whether an object without it cannot be read. */
    public final boolean isRequired() {
        return required;
    }

    /** What may stand in it, as JSON Schema. */
    public abstract String schema();

    /** What nobody knows inside of what {@code fields} has for it, by name. */
    void unknownInside(Fields fields, UnknownFields unknown) {}
}
