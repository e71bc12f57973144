package dev.verbale.contract;

import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Makes the schemas of an OpenAPI document plain JSON Schemas (2020-12) of what a response may be. What OpenAPI adds to the
 * language is put into its words: {@code writeOnly}, {@code discriminator}, {@code nullable} and the formats of numbers.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.0.3#schema-object">OpenAPI 3.0.3, Schema Object</a>
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#schema-object">OpenAPI 3.1, Schema Object</a>
 */
final class ResponseSchemas {

    private static final String COMPONENTS = "#/components/schemas/";
    /** What stands for a base schema where one of those that extend it has to be chosen. */
    private static final String CHOSEN = "--chosen";

    private static final List<String> MAPS =
            List.of("properties", "patternProperties", "dependentSchemas", "$defs", "definitions");
    private static final List<String> LISTS = List.of("anyOf", "oneOf", "prefixItems");
    private static final List<String> ONES = List.of(
            "additionalProperties",
            "items",
            "not",
            "if",
            "then",
            "else",
            "contains",
            "propertyNames",
            "unevaluatedItems",
            "unevaluatedProperties",
            "additionalItems");

    private static final JsonNodeFactory NEW = JsonNodeFactory.instance;

    private final ObjectNode document;
    private final boolean is30;
    private final Set<String> bases = new HashSet<>();

    /** Responses that several operations refer to. */
    private final Set<JsonNode> changed = Collections.newSetFromMap(new IdentityHashMap<>());

    /** Places in other files that were changed already. */
    private final Set<String> files = new HashSet<>();

    private ResponseSchemas(ObjectNode document) {
        this.document = document;
        this.is30 = document.path("openapi").asString("").startsWith("3.0");
    }

    /** A copy of {@code document}. */
    static ObjectNode in(JsonNode document) {
        var schemas = new ResponseSchemas((ObjectNode) document.deepCopy());
        schemas.change();
        return schemas.document;
    }

    private void change() {
        ObjectNode components = object(document.path("components").path("schemas"));
        for (Map.Entry<String, JsonNode> one : components.properties())
            if (isBase(one.getValue())) bases.add(one.getKey());
        Map<String, ObjectNode> chosen = new LinkedHashMap<>();
        for (String base : bases) chosen.put(base + CHOSEN, choice(base, object(components.path(base)), components));
        for (Map.Entry<String, JsonNode> one : components.properties()) schema(one.getValue(), Set.of(), false);
        for (ObjectNode one : chosen.values()) schema(one, Set.of(), true);
        chosen.forEach(components::set);
        contents(document.path("components").path("responses"));
        operations(document.path("paths"));
        operations(document.path("components").path("pathItems"));
    }

    private void operations(JsonNode paths) {
        for (JsonNode path : paths)
            for (JsonNode operation : resolved(path)) if (operation.isObject()) contents(operation.path("responses"));
    }

    private void contents(JsonNode responses) {
        for (JsonNode one : responses) {
            JsonNode response = resolved(one);
            if (!changed.add(response)) continue;
            for (JsonNode media : response.path("content")) schema(media.path("schema"), Set.of(), false);
            for (JsonNode header : response.path("headers"))
                schema(resolved(header).path("schema"), Set.of(), false);
        }
    }

    private static ObjectNode object(JsonNode node) {
        return node instanceof ObjectNode object ? object : NEW.objectNode();
    }

    /** One that is told apart by a property, without saying what there is: whatever extends it. */
    private static boolean isBase(JsonNode schema) {
        return schema.path("discriminator").has("propertyName") && !schema.has("oneOf") && !schema.has("anyOf");
    }

    /**
     * @param outerWriteOnly properties that whatever this is a part of calls write-only
     * @param plainReferences whether references lead to the schemas themselves, and not to a choice among what extends them
     */
    private void schema(JsonNode node, Set<String> outerWriteOnly, boolean plainReferences) {
        if (!(node instanceof ObjectNode schema)) return;
        if (schema.has("$ref")) {
            reference(schema, plainReferences);
            String to = schema.path("$ref").asString("");
            if (to.startsWith("#/" + ContractFiles.FILES) && files.add(to))
                schema(document.at(to.substring(1)), Set.of(), false);
            if (is30) return;
        }
        Set<String> writeOnly = new HashSet<>(outerWriteOnly);
        writeOnly(schema, writeOnly, 0);
        discriminated(schema);
        numbers(schema);
        boolean isNullable = is30
                && schema.path("nullable").asBoolean(false)
                && !schema.has("type")
                && (schema.has("allOf") || schema.has("anyOf") || schema.has("oneOf"));
        if (is30) older(schema);
        withoutWriteOnly(schema, writeOnly);
        for (String name : MAPS) for (JsonNode one : schema.path(name)) schema(one, Set.of(), false);
        for (String name : LISTS) for (JsonNode one : schema.path(name)) schema(one, writeOnly, plainReferences);
        for (JsonNode one : schema.path("allOf"))
            schema(one, writeOnly, true); // it extends that, and is none of its kinds
        for (String name : ONES) schema(schema.path(name), Set.of(), plainReferences && name.equals("then"));
        if (isNullable) orNull(schema);
    }

    /** {@code nullable} without a type, as beside {@code allOf}: by the letter it would mean nothing, and nobody means that. */
    private static void orNull(ObjectNode schema) {
        ObjectNode same = schema.deepCopy();
        schema.removeAll();
        ArrayNode either = schema.putArray("anyOf");
        either.add(same);
        either.addObject().put("type", "null");
    }

    private void reference(ObjectNode schema, boolean plainReferences) {
        String to = schema.path("$ref").asString("");
        if (is30) schema.retain("$ref"); // what stands beside it means nothing there
        String name = to.startsWith(COMPONENTS) ? to.substring(COMPONENTS.length()) : "";
        if (!plainReferences && bases.contains(name)) schema.put("$ref", to + CHOSEN);
    }

    // ---- discriminator

    /** The values that may stand there, names of schemas and others, each with the schema that it chooses. */
    private Map<String, String> mapping(JsonNode schema, List<String> known) {
        Map<String, String> mapping = new LinkedHashMap<>();
        for (String reference : known) {
            String name = reference.substring(reference.lastIndexOf('/') + 1);
            mapping.put(name, reference);
        }
        for (Map.Entry<String, JsonNode> one :
                schema.path("discriminator").path("mapping").properties()) {
            String to = one.getValue().asString("");
            String reference = to.startsWith("#") ? to : COMPONENTS + to;
            mapping.put(one.getKey(), reference);
        }
        return mapping;
    }

    /** Of alternatives, the property chooses one, and the others count no more. */
    private void discriminated(ObjectNode schema) {
        String property = schema.path("discriminator").path("propertyName").asString("");
        String list = schema.has("oneOf") ? "oneOf" : schema.has("anyOf") ? "anyOf" : "";
        if (property.isEmpty() || list.isEmpty()) return;
        List<String> references = schema.path(list)
                .valueStream()
                .map(one -> one.path("$ref").asString(""))
                .filter(one -> !one.isEmpty())
                .toList();
        if (references.size() < schema.path(list).size()) return; // those without a name cannot be chosen by one
        schema.remove(list);
        choose(schema, property, mapping(schema, references));
    }

    private ObjectNode choice(String base, ObjectNode schema, ObjectNode components) {
        List<String> extending = components.properties().stream()
                .filter(one -> one.getValue()
                        .path("allOf")
                        .valueStream()
                        .anyMatch(part -> part.path("$ref").asString("").equals(COMPONENTS + base)))
                .map(one -> COMPONENTS + one.getKey())
                .toList();
        Map<String, String> mapping = mapping(schema, extending);
        mapping.putIfAbsent(base, COMPONENTS + base);
        ObjectNode chosen = NEW.objectNode();
        choose(chosen, schema.path("discriminator").path("propertyName").asString(""), mapping);
        return chosen;
    }

    private static void choose(ObjectNode schema, String property, Map<String, String> mapping) {
        ArrayNode all = schema.withArray("allOf");
        ObjectNode known = NEW.objectNode();
        ArrayNode values = known.putObject("properties").putObject(property).putArray("enum");
        mapping.keySet().forEach(values::add);
        known.putArray("required").add(property);
        all.add(known);
        mapping.forEach((value, reference) -> {
            ObjectNode rule = all.addObject();
            ObjectNode where = rule.putObject("if");
            where.putObject("properties").putObject(property).put("const", value);
            where.putArray("required").add(property);
            rule.putObject("then").put("$ref", reference);
        });
    }

    // ---- writeOnly

    private void writeOnly(JsonNode schema, Set<String> names, int depth) {
        if (depth > 20) return; // it refers to itself
        for (Map.Entry<String, JsonNode> one : schema.path("properties").properties())
            if (resolved(one.getValue()).path("writeOnly").asBoolean(false)
                    || one.getValue().path("writeOnly").asBoolean(false)) names.add(one.getKey());
        for (JsonNode part : schema.path("allOf")) writeOnly(resolved(part), names, depth + 1);
    }

    private JsonNode resolved(JsonNode schema) {
        String to = schema.path("$ref").asString("");
        return to.startsWith("#/") ? document.at(to.substring(1)) : schema;
    }

    /** Nobody has to send it, and nobody may. */
    private static void withoutWriteOnly(ObjectNode schema, Set<String> names) {
        if (names.isEmpty()) return;
        if (schema.path("required") instanceof ArrayNode required) {
            ArrayNode left = NEW.arrayNode();
            for (JsonNode one : required) if (!names.contains(one.asString(""))) left.add(one);
            schema.set("required", left);
        }
        if (schema.path("properties") instanceof ObjectNode properties)
            for (String name : names) if (properties.has(name)) properties.set(name, NEW.booleanNode(false));
    }

    // ---- types

    private static void numbers(ObjectNode schema) {
        switch (schema.path("format").asString("")) {
            case "int32" -> between(schema, Integer.MIN_VALUE, Integer.MAX_VALUE);
            case "int64" -> between(schema, Long.MIN_VALUE, Long.MAX_VALUE);
            default -> {}
        }
    }

    private static void between(ObjectNode schema, long least, long limit) {
        ObjectNode range = schema.withArray("allOf").addObject();
        range.put("minimum", least).put("maximum", limit);
    }

    /** What was said otherwise in 3.0. A null has to be among the values of an {@code enum} all the same. */
    private static void older(ObjectNode schema) {
        bound(schema, "minimum", "exclusiveMinimum");
        bound(schema, "maximum", "exclusiveMaximum");
        JsonNode type = schema.path("type");
        if (schema.path("nullable").asBoolean(false) && type.isString())
            schema.putArray("type").add(type.asString()).add("null");
        schema.remove("nullable");
    }

    private static void bound(ObjectNode schema, String bound, String exclusive) {
        JsonNode isExclusive = schema.path(exclusive);
        if (!isExclusive.isBoolean()) return;
        schema.remove(exclusive);
        if (isExclusive.asBoolean() && schema.has(bound)) schema.set(exclusive, schema.remove(bound));
    }
}
