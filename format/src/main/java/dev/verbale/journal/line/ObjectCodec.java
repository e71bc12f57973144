package dev.verbale.journal.line;

/**
 * How an object inside an event becomes JSON and comes back.
 *
 * @param <T> what it writes and reads
 */
public abstract class ObjectCodec<T> extends Codec<T> {

    ObjectCodec(String word, String meaning) {
        super(word, meaning);
    }

    final void writeObject(JsonLine line, T value) {
        line.json.writeStartObject();
        write(line, value);
        line.json.writeEndObject();
    }

    /** Where the schema has it. */
    final String reference() {
        return "{\"$ref\": \"#/$defs/" + word() + "\"}";
    }
}
