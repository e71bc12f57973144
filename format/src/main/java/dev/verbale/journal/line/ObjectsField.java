package dev.verbale.journal.line;

import java.util.List;

/** A list of objects; left out where it is empty. */
final class ObjectsField<T> extends Field {

    private final ObjectCodec<T> codec;

    ObjectsField(String name, String meaning, ObjectCodec<T> codec) {
        super(name, meaning, false);
        this.codec = codec;
    }

    void write(JsonLine line, List<T> values) {
        if (values.isEmpty()) return;
        line.json.writeName(json);
        line.json.writeStartArray();
        for (T value : values) codec.writeObject(line, value);
        line.json.writeEndArray();
    }

    List<T> read(Fields fields) {
        return fields.objects(name()).stream().map(codec::read).toList();
    }

    @Override
    public String schema() {
        return "{\"type\": \"array\", \"items\": " + codec.reference() + "}";
    }

    @Override
    void unknownInside(Fields fields, UnknownFields unknown) {
        for (Fields object : fields.objects(name())) codec.unknown(object, unknown);
    }
}
