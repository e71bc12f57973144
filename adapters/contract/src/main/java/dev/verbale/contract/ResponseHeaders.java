package dev.verbale.contract;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;

/**
 * Headers of a response beside what a contract says of them.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#header-object">OpenAPI, Header Object</a>
 */
final class ResponseHeaders {

    private static final JsonMapper JSON = new JsonMapper();

    private ResponseHeaders() {}

    /**
     * @param documented by the contract: a header object by each name
     * @param pointer to them
     * @param given as they came
     * @param check what a value in JSON violates of the schema at a pointer
     */
    static List<Violation> violations(
            JsonNode documented,
            String pointer,
            Map<String, List<String>> given,
            BiFunction<String, String, List<Violation>> check) {
        Map<String, List<String>> byName = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        given.forEach((name, values) -> {
            if (name != null && values != null) byName.put(name, values);
        });
        List<Violation> violations = new ArrayList<>();
        for (Map.Entry<String, JsonNode> one : documented.properties()) {
            String name = one.getKey();
            if (name.equalsIgnoreCase("Content-Type")) continue; // by the specification it is not looked at here
            List<String> values = byName.get(name);
            if (values == null || values.isEmpty()) {
                if (one.getValue().path("required").asBoolean(false))
                    violations.add(new Violation("header " + name, "is not there, and the contract requires it"));
                continue;
            }
            if (!one.getValue().has("schema")) continue;
            String schema = pointer + "/" + OpenApiPaths.escaped(name) + "/schema";
            for (Violation found : check.apply(schema, json(type(one.getValue().path("schema")), values)))
                violations.add(new Violation("header " + name, found.what()));
        }
        return violations;
    }

    private static @Nullable String type(JsonNode schema) {
        JsonNode type = schema.path("type");
        return type.isString()
                ? type.asString()
                : type.isArray() && !type.isEmpty() ? type.get(0).asString("") : null;
    }

    /** As the schema means it: a number is written as one, a list with commas (style {@code simple}). */
    private static String json(@Nullable String type, List<String> values) {
        String whole = String.join(",", values);
        if (!"array".equals(type)) return scalar(type, whole.strip());
        ArrayNode list = JSON.createArrayNode();
        for (String one : whole.split(",")) list.add(one.strip());
        return list.toString();
    }

    private static String scalar(@Nullable String type, String value) {
        boolean isLiteral = "integer".equals(type) || "number".equals(type)
                ? value.matches("-?\\d+(\\.\\d+)?([eE][+-]?\\d+)?")
                : "boolean".equals(type) && value.matches("true|false");
        return isLiteral ? value : JSON.writeValueAsString(value);
    }
}
