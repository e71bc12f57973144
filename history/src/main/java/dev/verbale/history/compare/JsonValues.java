package dev.verbale.history.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * Each value of a JSON document by its path, as JSONPath has it (RFC 9535), such as {@code $.plots[2].owner}: numbers in their own form,
 * texts in quotation marks, empty objects and arrays as such.
 *
 * @since 0.2.0
 */
public final class JsonValues {

    /** A document with more is not looked into. */
    public static final int MAX = 100_000;

    private static final JsonFactory JSON = new JsonFactory();

    private JsonValues() {}

    /** In the order of the document; null where it is no JSON, or has more than {@value #MAX} values. */
    public static @Nullable Map<String, String> of(@Nullable String text) {
        if (text == null || text.isBlank()) return null;
        Map<String, String> values = new LinkedHashMap<>();
        try (JsonParser parser = JSON.createParser(ObjectReadContext.empty(), text)) {
            if (parser.nextToken() == null) return null;
            read(parser, values);
            return values.size() <= MAX && parser.nextToken() == null ? values : null;
        } catch (JacksonException none) {
            return null;
        }
    }

    /** A document that is being read: where, and in an array at which place. */
    private record Open(String path, boolean isArray, int count) {
        private Open next() {
            return new Open(path, isArray, count + 1);
        }
    }

    private static void read(JsonParser parser, Map<String, String> values) {
        List<Open> open = new ArrayList<>();
        String path = "$";
        do {
            JsonToken token = parser.currentToken();
            if (token == JsonToken.PROPERTY_NAME) {
                path = open.get(open.size() - 1).path() + member(parser.currentName());
                count(open);
                continue;
            }
            boolean ends = token == JsonToken.END_OBJECT || token == JsonToken.END_ARRAY;
            if (ends) {
                Open closed = open.remove(open.size() - 1);
                if (closed.count() == 0) values.put(closed.path(), closed.isArray() ? "[]" : "{}");
                continue;
            }
            if (!open.isEmpty() && open.get(open.size() - 1).isArray()) {
                Open array = open.get(open.size() - 1);
                path = array.path() + "[" + array.count() + "]";
                count(open);
            }
            if (token == JsonToken.START_OBJECT) open.add(new Open(path, false, 0));
            else if (token == JsonToken.START_ARRAY) open.add(new Open(path, true, 0));
            else
                values.put(
                        path, token == JsonToken.VALUE_STRING ? "\"" + parser.getString() + "\"" : parser.getString());
            if (values.size() > MAX) return;
        } while (!open.isEmpty() && parser.nextToken() != null);
    }

    private static void count(List<Open> open) {
        open.set(open.size() - 1, open.get(open.size() - 1).next());
    }

    private static String member(String name) {
        return name.matches("[\\p{L}_][\\p{L}\\p{N}_]*")
                ? "." + name
                : "['" + name.replace("\\", "\\\\").replace("'", "\\'") + "']";
    }
}
