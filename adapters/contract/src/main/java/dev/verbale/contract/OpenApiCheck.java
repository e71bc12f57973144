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
     * @throws IOException where an answer's part of it leads nowhere, to another file, or is no schema; the message says where
     */
    static void of(JsonNode document) throws IOException {
        var check = new OpenApiCheck(document);
        for (Map.Entry<String, JsonNode> path : document.path("paths").properties()) {
            JsonNode item = path.getValue();
            String at = "/paths/" + escaped(path.getKey());
            if (item.has("$ref")) item = check.reference(item.path("$ref").asString(""), at);
            for (Map.Entry<String, JsonNode> operation : item.properties())
                if (!NO_METHODS.contains(operation.getKey()))
                    check.look(
                            operation.getValue().path("responses"),
                            at + "/" + escaped(operation.getKey()) + "/responses",
                            false);
        }
    }

    private void look(JsonNode node, String at, boolean isSchema) throws IOException {
        if (isSchema) language(node, at);
        if (node.path("$ref").isString()) {
            String to = node.path("$ref").asString();
            JsonNode target = reference(to, at);
            if (seen.add(to)) look(target, to.substring(1), isSchema || to.startsWith("#/components/schemas/"));
        }
        for (Map.Entry<String, JsonNode> one : node.properties())
            if (!NO_SCHEMAS.contains(one.getKey()) && !one.getKey().startsWith("x-"))
                look(
                        one.getValue(),
                        at + "/" + escaped(one.getKey()),
                        !isSchema && one.getKey().equals("schema"));
        if (node.isArray()) for (int i = 0; i < node.size(); i++) look(node.get(i), at + "/" + i, false);
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

    private static String escaped(String name) {
        return name.replace("~", "~0").replace("/", "~1");
    }
}
