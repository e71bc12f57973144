package dev.verbale.contract;

import java.io.IOException;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/**
 * Finds schemas that come back to themselves without looking at another part of a value: nobody could ever end checking one.
 * A schema may well refer to itself for a part, as a tree does.
 */
final class SchemaCycles {

    /** What looks at the same value again. */
    private static final List<String> ONES = List.of("not", "if", "then", "else");

    private static final List<String> LISTS = List.of("allOf", "anyOf", "oneOf");

    private final JsonNode document;
    private final IdentityHashMap<JsonNode, Boolean> known = new IdentityHashMap<>();

    private SchemaCycles(JsonNode document) {
        this.document = document;
    }

    /** @throws IOException where there is one; the message says where */
    static void refuse(JsonNode document) throws IOException {
        new SchemaCycles(document).look(document, "");
    }

    private void look(JsonNode node, String at) throws IOException {
        if (node.isObject() && isSchema(node)) follow(node, at);
        for (Map.Entry<String, JsonNode> one : node.properties())
            look(one.getValue(), at + "/" + OpenApiPaths.escaped(one.getKey()));
        if (node.isArray()) for (int i = 0; i < node.size(); i++) look(node.get(i), at + "/" + i);
    }

    private static boolean isSchema(JsonNode node) {
        return node.path("$ref").isString()
                || LISTS.stream().anyMatch(list -> node.path(list).isArray());
    }

    /** True stands for one that is under way, false for one that was found to end. */
    private void follow(JsonNode schema, String at) throws IOException {
        Boolean before = known.get(schema);
        if (Boolean.FALSE.equals(before)) return;
        if (Boolean.TRUE.equals(before))
            throw new IOException(
                    (at.isEmpty() ? "/" : at) + " comes back to itself by its references, and says nothing in between");
        known.put(schema, true);
        for (JsonNode one : ofTheSameValue(schema)) follow(one, at);
        known.put(schema, false);
    }

    private List<JsonNode> ofTheSameValue(JsonNode schema) {
        List<JsonNode> all = new ArrayList<>();
        String to = schema.path("$ref").asString("");
        if (to.equals("#")) all.add(document);
        else if (to.startsWith("#/")) all.add(document.at(to.substring(1)));
        for (String name : ONES) if (schema.path(name).isObject()) all.add(schema.path(name));
        for (String name : LISTS) for (JsonNode one : schema.path(name)) if (one.isObject()) all.add(one);
        all.removeIf(JsonNode::isMissingNode);
        return all;
    }
}
