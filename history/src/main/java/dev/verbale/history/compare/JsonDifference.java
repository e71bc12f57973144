package dev.verbale.history.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * A value of a JSON document that is another one now.
 *
 * @param path as JSONPath has it (RFC 9535), such as {@code $.plots[2].owner}
 * @param before as it stood in the document, numbers in their own form; null where there was none
 * @param after the same of now
 * @since 0.2.0
 */
public record JsonDifference(
        String path, @Nullable String before, @Nullable String after) {

    private static final JsonFactory JSON = new JsonFactory();
    private static final int MAX_VALUES = 100_000;

    /** In the order of the earlier document, then what is new; empty where one of them is no JSON, or has more than {@value #MAX_VALUES}
     * values. */
    public static Optional<List<JsonDifference>> of(@Nullable String before, @Nullable String after) {
        Map<String, String> then = values(before);
        Map<String, String> now = values(after);
        if (then == null || now == null) return Optional.empty();
        List<JsonDifference> differences = new ArrayList<>();
        Set<String> paths = new LinkedHashSet<>(then.keySet());
        paths.addAll(now.keySet());
        for (String path : paths) {
            String one = then.get(path);
            String other = now.get(path);
            if (one == null ? other != null : !one.equals(other)) differences.add(new JsonDifference(path, one, other));
        }
        return Optional.of(differences);
    }

    /** Such as {@code $.free: 3, now 2}. */
    public String sentence() {
        if (before == null) return path + ": " + after + ", which was not there before";
        if (after == null) return path + ": " + before + ", which is not there now";
        return path + ": " + before + ", now " + after;
    }

    /** Each value by its path; empty objects and arrays are values too. */
    private static @Nullable Map<String, String> values(@Nullable String text) {
        if (text == null || text.isBlank()) return null;
        Map<String, String> values = new LinkedHashMap<>();
        try (JsonParser parser = JSON.createParser(ObjectReadContext.empty(), text)) {
            if (parser.nextToken() == null) return null;
            read(parser, values);
            return values.size() <= MAX_VALUES && parser.nextToken() == null ? values : null;
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
            if (values.size() > MAX_VALUES) return;
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
