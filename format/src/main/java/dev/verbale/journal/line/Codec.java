package dev.verbale.journal.line;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a kind of object becomes JSON and comes back. A field is declared where the codec is made, in the order in which fields are
 * documented, and is then written and read by name of the Java field that holds it: its name in the journal stands once.
 *
 * @param <T> what it writes and reads
 */
public abstract class Codec<T> {

    private final String word;
    private final String meaning;
    private final List<Field> fields = new ArrayList<>();

    /**
     * @param word what journals call it
     * @param meaning what it means, in a sentence
     */
    Codec(String word, String meaning) {
        this.word = word;
        this.meaning = meaning;
    }

    /** What journals call it. */
    public final String word() {
        return word;
    }

    /** What it means. */
    public final String meaning() {
        return meaning;
    }

    /** Its fields, in their order. */
    public final List<Field> fields() {
        return Collections.unmodifiableList(fields);
    }

    /** Writes the fields of {@code value}, between braces that somebody else writes. */
    abstract void write(JsonLine line, T value);

    /** @throws MalformedLine where {@code fields} are not those of such an object */
    abstract T read(Fields fields);

    /** Tells which of {@code given}, that it has read, it does not know. */
    final void unknown(Fields given, UnknownFields unknown) {
        for (String name : given.unasked()) if (!knows(name)) unknown.add(word, name);
        for (Field field : fields) field.unknownInside(given, unknown);
    }

    boolean knows(String name) {
        for (Field field : fields) if (field.name().equals(name)) return true;
        return false;
    }

    private <F extends Field> F declared(F field) {
        fields.add(field);
        return field;
    }

    final TextField text(String name, String meaning) {
        return declared(new TextField(name, meaning, true));
    }

    final TextField optionalText(String name, String meaning) {
        return declared(new TextField(name, meaning, false));
    }

    /** A text that may be long and like others. Where it is, its pieces stand in a field of their own. */
    final LongText optionalLongText(String name, String meaning) {
        return new LongText(
                optionalText(name, meaning),
                objects(
                        name + "Pieces",
                        "instead of `" + name + "`, where earlier lines have parts of it",
                        TextPieceCodec.CODEC));
    }

    final WordField word(String name, String meaning) {
        return declared(new WordField(name, meaning, true, "{\"type\": \"string\"}"));
    }

    final WordField optionalWord(String name, String meaning) {
        return declared(new WordField(name, meaning, false, "{\"type\": \"string\"}"));
    }

    final WordField moment(String name, String meaning) {
        return declared(new WordField(name, meaning, true, "{\"type\": \"string\", \"format\": \"date-time\"}"));
    }

    /** The number by which others name it. */
    final NumberField id(String name, String meaning) {
        return number(name, meaning, 1, Integer.MAX_VALUE, null);
    }

    /** The number of another; 0 for none, which is left out. */
    final NumberField optionalId(String name, String meaning) {
        return number(name, meaning, 1, Integer.MAX_VALUE, 0L);
    }

    /** Microseconds, of which nobody may know. */
    final NumberField optionalMicros(String name, String meaning) {
        return optionalNumber(name, meaning, 0, NumberField.LONGEST_MICROS);
    }

    /** Microseconds; 0 is left out. */
    final NumberField microsOrZero(String name, String meaning) {
        return number(name, meaning, 0, NumberField.LONGEST_MICROS, 0L);
    }

    final NumberField optionalNumber(String name, String meaning, long min, long max) {
        return declared(new NumberField(name, meaning, false, min, max, null));
    }

    /** @param absent what is left out; null where it never is */
    final NumberField number(String name, String meaning, long min, long max, @Nullable Long absent) {
        return declared(new NumberField(name, meaning, absent == null, min, max, absent));
    }

    final NumbersField numbers(String name, String meaning, long max) {
        return declared(new NumbersField(name, meaning, max));
    }

    final TextsField texts(String name, String meaning) {
        return declared(new TextsField(name, meaning));
    }

    final TextsByNameField textsByName(String name, String meaning) {
        return declared(new TextsByNameField(name, meaning));
    }

    final <V> ObjectField<V> object(String name, String meaning, ObjectCodec<V> codec) {
        return declared(new ObjectField<>(name, meaning, true, codec));
    }

    final <V> ObjectField<V> optionalObject(String name, String meaning, ObjectCodec<V> codec) {
        return declared(new ObjectField<>(name, meaning, false, codec));
    }

    final <V> ObjectsField<V> objects(String name, String meaning, ObjectCodec<V> codec) {
        return declared(new ObjectsField<>(name, meaning, codec));
    }
}
