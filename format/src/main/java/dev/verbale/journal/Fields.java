package dev.verbale.journal;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;

/** The fields of one JSON object, asked for by name and type; what is asked for and not there is said by name. */
final class Fields {

    private final String what;
    private final Map<String, @Nullable Object> values;

    private Fields(String what, Map<String, @Nullable Object> values) {
        this.what = what;
        this.values = values;
    }

    /** @throws tools.jackson.core.JacksonException where the bytes are no JSON object */
    static Fields parse(byte[] bytes, int length) {
        try (JsonParser parser = JournalFormat.JSON.createParser(ObjectReadContext.empty(), bytes, 0, length)) {
            if (parser.nextToken() != JsonToken.START_OBJECT) throw new MalformedLine("not a JSON object");
            Map<String, @Nullable Object> values = object(parser);
            if (parser.nextToken() != null) throw new MalformedLine("more than one JSON object in the line");
            return new Fields("the line", values);
        }
    }

    private static Map<String, @Nullable Object> object(JsonParser parser) {
        Map<String, @Nullable Object> values = new LinkedHashMap<>();
        for (String name = parser.nextName(); name != null; name = parser.nextName()) {
            parser.nextToken();
            values.put(name, value(parser));
        }
        return values;
    }

    private static @Nullable Object value(JsonParser parser) {
        return switch (parser.currentToken()) {
            case VALUE_STRING -> parser.getString();
            case VALUE_NUMBER_INT -> parser.getLongValue();
            case VALUE_NUMBER_FLOAT -> parser.getDoubleValue();
            case VALUE_TRUE -> Boolean.TRUE;
            case VALUE_FALSE -> Boolean.FALSE;
            case START_OBJECT -> object(parser);
            case START_ARRAY -> {
                List<@Nullable Object> items = new ArrayList<>();
                while (parser.nextToken() != JsonToken.END_ARRAY) items.add(value(parser));
                yield items;
            }
            default -> null;
        };
    }

    Fields as(String name) {
        return new Fields("'" + name + "'", values);
    }

    String text(String name) {
        String text = textOrNull(name);
        if (text == null) throw new MalformedLine(what + " has no '" + name + "'");
        return text;
    }

    @Nullable
    String textOrNull(String name) {
        return (String) typed(name, String.class, "text");
    }

    long number(String name) {
        Long number = (Long) typed(name, Long.class, "a whole number");
        if (number == null) throw new MalformedLine(what + " has no '" + name + "'");
        return number;
    }

    int id(String name) {
        return Math.toIntExact(number(name));
    }

    int idOrZero(String name) {
        Long number = (Long) typed(name, Long.class, "a whole number");
        return number == null ? 0 : Math.toIntExact(number);
    }

    long longOrZero(String name) {
        Long number = (Long) typed(name, Long.class, "a whole number");
        return number == null ? 0 : number;
    }

    Map<String, String> textsByName(String name) {
        Fields object = objectOrNull(name);
        if (object == null) return Map.of();
        Map<String, String> texts = new LinkedHashMap<>();
        object.values.keySet().forEach(key -> texts.put(key, object.text(key)));
        return texts;
    }

    Map<String, Long> numbers(String name) {
        Fields object = objectOrNull(name);
        if (object == null) return Map.of();
        Map<String, Long> numbers = new LinkedHashMap<>();
        object.values.keySet().forEach(key -> numbers.put(key, object.number(key)));
        return numbers;
    }

    List<String> texts(String name) {
        List<?> items = (List<?>) typed(name, List.class, "a list");
        return items == null ? List.of() : items.stream().map(String::valueOf).toList();
    }

    @SuppressWarnings("unchecked") // object() makes no other maps
    @Nullable
    Fields objectOrNull(String name) {
        var object = (Map<String, @Nullable Object>) typed(name, Map.class, "an object");
        return object == null ? null : new Fields("'" + name + "'", object);
    }

    @SuppressWarnings("unchecked") // object() makes no other maps
    List<Fields> objects(String name) {
        List<?> items = (List<?>) typed(name, List.class, "a list");
        if (items == null) return List.of();
        List<Fields> objects = new ArrayList<>();
        for (Object item : items)
            if (item instanceof Map<?, ?> map) objects.add(new Fields(name, (Map<String, @Nullable Object>) map));
        return objects;
    }

    private @Nullable Object typed(String name, Class<?> type, String said) {
        Object value = values.get(name);
        if (value != null && !type.isInstance(value))
            throw new MalformedLine(what + " has '" + name + "' that is not " + said);
        return value;
    }
}
