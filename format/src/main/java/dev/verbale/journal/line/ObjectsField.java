package dev.verbale.journal.line;

import java.util.List;
import java.util.function.Supplier;

/** A list of objects; left out where it is empty. */
final class ObjectsField<T> extends Field {

    private final Supplier<ObjectCodec<T>> codec;

    ObjectsField(String name, String meaning, Supplier<ObjectCodec<T>> codec) {
        super(name, meaning, false);
        this.codec = codec;
    }

    void write(JsonLine line, List<T> values) {
        if (values.isEmpty()) return;
        line.json.writeName(json);
        line.json.writeStartArray();
        for (T value : values) codec.get().writeObject(line, value);
        line.json.writeEndArray();
    }

    List<T> read(Fields fields) {
        return fields.objects(name()).stream().map(codec.get()::read).toList();
    }

    @Override
    public String schema() {
        return "{\"type\": \"array\", \"items\": " + codec.get().reference() + "}";
    }

    @Override
    void unknownInside(Fields fields, UnknownFields unknown) {
        for (Fields object : fields.objects(name())) codec.get().unknown(object, unknown);
    }
}
