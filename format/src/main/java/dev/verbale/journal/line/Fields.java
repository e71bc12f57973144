package dev.verbale.journal.line;

import dev.verbale.json.JsonIn;
import dev.verbale.json.WellFormedText;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/** The fields of one JSON object, asked for by name and type; what is asked for and not there is expected by name. */
final class Fields {

    private final String what;
    private final JsonObject values;
    private final Set<String> repeated;

    /** The pieces of texts that lines before have. */
    final KnownPieces known;

    private Fields(String what, JsonObject values, Set<String> repeated, KnownPieces known) {
        this.what = what;
        this.values = values;
        this.repeated = repeated;
        this.known = known;
    }

    /** @throws tools.jackson.core.JacksonException where the bytes are no JSON object */
    static Fields parse(byte[] bytes, int from, int length, KnownPieces known) {
        try (JsonParser parser = JsonIn.parser(bytes, from, length)) {
            if (parser.nextToken() != JsonToken.START_OBJECT) throw new MalformedLine("not a JSON object");
            Fields fields = read(parser, known);
            if (parser.nextToken() != null) throw new MalformedLine("more than one JSON object in the line");
            return fields;
        }
    }

    /**
     * Of the object at whose beginning {@code parser} stands.
     *
     * @throws tools.jackson.core.JacksonException where it is broken
     */
    static Fields read(JsonParser parser, KnownPieces known) {
        var repeated = new Repeated();
        return new Fields("the line", object(parser, repeated), repeated.names, known);
    }

    /** Hardly any line has some. */
    private static final class Repeated {
        private Set<String> names = Set.of();

        private void add(String name) {
            if (names.isEmpty()) names = new TreeSet<>();
            names.add(name);
        }
    }

    /** Names that one of its objects has more than once; of such fields the last one counts. */
    Set<String> repeated() {
        return repeated;
    }

    private static JsonObject object(JsonParser parser, Repeated repeated) {
        var values = new JsonObject();
        for (String name = parser.nextName(); name != null; name = parser.nextName()) {
            parser.nextToken();
            String known = WellFormedText.of(name);
            if (values.put(known, value(parser, repeated))) repeated.add(known);
        }
        return values;
    }

    private static @Nullable Object value(JsonParser parser, Repeated repeated) {
        return switch (parser.currentToken()) {
            case VALUE_STRING -> WellFormedText.of(parser.getString());
            case VALUE_NUMBER_INT -> parser.getLongValue();
            case VALUE_NUMBER_FLOAT -> parser.getDoubleValue();
            case VALUE_TRUE -> true;
            case VALUE_FALSE -> false;
            case START_OBJECT -> object(parser, repeated);
            case START_ARRAY -> {
                List<@Nullable Object> items = new ArrayList<>();
                while (parser.nextToken() != JsonToken.END_ARRAY) items.add(value(parser, repeated));
                yield items;
            }
            default -> null;
        };
    }

    Fields as(String name) {
        return new Fields("'" + name + "'", values, repeated, known);
    }

    /** Of this object, in their order. */
    List<String> names() {
        return values.names();
    }

    /** The names of the fields that nobody asked for yet, in their order. */
    List<String> unasked() {
        List<String> unasked = List.of(); // hardly any line has some
        for (int i = 0; i < values.size(); i++) {
            if (values.wasAsked(i)) continue;
            if (unasked.isEmpty()) unasked = new ArrayList<>();
            unasked.add(values.name(i));
        }
        return unasked;
    }

    String text(String name) {
        String text = textOrNull(name);
        if (text == null) throw lacks(name);
        return text;
    }

    @Nullable
    String textOrNull(String name) {
        return (String) typed(name, String.class, "text");
    }

    @Nullable
    Long numberOrNull(String name) {
        return (Long) typed(name, Long.class, "a whole number");
    }

    /** A time in microseconds that a run can have. */
    long micros(String name) {
        Long micros = numberOrNull(name);
        if (micros == null) throw lacks(name);
        if (micros < 0 || micros > NumberField.LONGEST_MICROS) throw refuses(name, micros + " is no time of a run");
        return micros;
    }

    MalformedLine lacks(String name) {
        return new MalformedLine(what + " has no '" + name + "'");
    }

    MalformedLine refuses(String name, String why) {
        return new MalformedLine(what + " has '" + name + "' that it cannot have: " + why);
    }

    List<String> texts(String name) {
        List<?> items = (List<?>) typed(name, List.class, "a list");
        return items == null ? List.of() : items.stream().map(String::valueOf).toList();
    }

    @Nullable
    Fields objectOrNull(String name) {
        var object = (JsonObject) typed(name, JsonObject.class, "an object");
        return object == null ? null : new Fields("'" + name + "'", object, repeated, known);
    }

    List<Fields> objects(String name) {
        List<?> items = (List<?>) typed(name, List.class, "a list");
        if (items == null) return List.of();
        List<Fields> objects = new ArrayList<>();
        for (Object item : items)
            if (item instanceof JsonObject object) objects.add(new Fields(name, object, repeated, known));
        return objects;
    }

    private @Nullable Object typed(String name, Class<?> type, String expected) {
        Object value = values.get(name);
        if (value != null && !type.isInstance(value))
            throw new MalformedLine(what + " has '" + name + "' that is not " + expected);
        return value;
    }
}
