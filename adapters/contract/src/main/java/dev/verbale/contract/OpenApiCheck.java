package dev.verbale.contract;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;

/** Looks whether all that answers are checked against can be: what cannot be must not pass for what holds. */
final class OpenApiCheck {

    private static final String LANGUAGE = "https://json-schema.org/draft/2020-12/schema";
    private static final Set<String> NO_SCHEMAS = Set.of("example", "examples", "default", "enum", "const");
    /** What holds things by names of the document's own, among which may be any of the words above. */
    private static final Set<String> NAMES = Set.of(
            "content",
            "headers",
            "links",
            "properties",
            "patternProperties",
            "dependentSchemas",
            "$defs",
            "definitions");

    private static final Set<String> NO_METHODS = Set.of("summary", "description", "servers", "parameters");

    private final JsonNode document;
    private final Schema language = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(SchemaLocation.of(LANGUAGE));
    private final Set<String> seen = new HashSet<>();

    private OpenApiCheck(JsonNode document) {
        this.document = document;
    }

    /**
     * @param document its schemas in plain JSON Schema
     * @throws IOException where a response's part of it leads nowhere, to another file, or is no schema; the message says where
     */
    static void of(JsonNode document) throws IOException {
        var check = new OpenApiCheck(document);
        for (Map.Entry<String, JsonNode> path : document.path("paths").properties()) {
            JsonNode item = path.getValue();
            String at = "/paths/" + OpenApiPaths.escaped(path.getKey());
            if (item.has("$ref")) item = check.reference(item.path("$ref").asString(""), at);
            for (Map.Entry<String, JsonNode> operation : item.properties())
                if (!NO_METHODS.contains(operation.getKey()))
                    check.look(
                            operation.getValue().path("responses"),
                            at + "/" + OpenApiPaths.escaped(operation.getKey()) + "/responses",
                            false,
                            true);
        }
    }

    /** @param isNames whether what stands in {@code node} has names of the document's own, which mean nothing here */
    private void look(JsonNode node, String at, boolean isSchema, boolean isNames) throws IOException {
        if (isSchema) language(node, at);
        if (!isNames && node.path("$ref").isString()) {
            String to = node.path("$ref").asString();
            JsonNode target = reference(to, at);
            if (seen.add(to)) look(target, to.substring(1), to.startsWith("#/components/schemas/"), false);
        }
        for (Map.Entry<String, JsonNode> one : node.properties()) {
            String name = one.getKey();
            if (!isNames && (NO_SCHEMAS.contains(name) || name.startsWith("x-"))) continue;
            boolean holdsSchema = !isNames && name.equals("schema");
            look(one.getValue(), at + "/" + OpenApiPaths.escaped(name), holdsSchema, !isNames && NAMES.contains(name));
        }
        if (node.isArray()) for (int i = 0; i < node.size(); i++) look(node.get(i), at + "/" + i, false, false);
    }

    private JsonNode reference(String to, String at) throws IOException {
        if (!to.startsWith("#/"))
            throw new IOException(at + " refers to " + to + ", which is not followed: put all of it into one document");
        JsonNode target = document.at(to.substring(1));
        if (target.isMissingNode()) throw new IOException(at + " refers to " + to + ", which is not there");
        return target;
    }

    private void language(JsonNode schema, String at) throws IOException {
        List<Error> errors = language.validate(schema);
        if (errors.isEmpty()) return;
        Error first = errors.get(0);
        throw new IOException(at + first.getInstanceLocation() + " is no schema: " + first.getMessage());
    }
}
