package dev.verbale.journal.line;

import org.jspecify.annotations.Nullable;

/** An object inside another. */
final class ObjectField<T> extends Field {

    private final ObjectCodec<T> codec;

    ObjectField(String name, String meaning, boolean required, ObjectCodec<T> codec) {
        super(name, meaning, required);
        this.codec = codec;
    }

    void write(JsonLine line, @Nullable T value) {
        if (value == null) return;
        line.json.writeName(json);
        codec.writeObject(line, value);
    }

    T read(Fields fields) {
        T value = readOrNull(fields);
        if (value == null) throw fields.lacks(name());
        return value;
    }

    @Nullable
    T readOrNull(Fields fields) {
        Fields object = fields.objectOrNull(name());
        return object == null ? null : codec.read(object);
    }

    @Override
    public String schema() {
        return codec.reference();
    }

    @Override
    void unknownInside(Fields fields, UnknownFields unknown) {
        Fields object = fields.objectOrNull(name());
        if (object != null) codec.unknown(object, unknown);
    }
}
