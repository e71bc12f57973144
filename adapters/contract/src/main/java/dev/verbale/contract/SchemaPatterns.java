package dev.verbale.contract;

import java.io.IOException;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import tools.jackson.databind.JsonNode;

/** The regular expressions in schemas: one that is none would be found by the first response that is checked by it. */
final class SchemaPatterns {

    private SchemaPatterns() {}

    /** @throws IOException where one is none; the message says where */
    static void check(JsonNode node, String at) throws IOException {
        if (node.path("pattern").isString()) compiled(node.path("pattern").asString(), at + "/pattern");
        for (String name : node.path("patternProperties").propertyNames()) compiled(name, at + "/patternProperties");
        for (Map.Entry<String, JsonNode> one : node.properties())
            check(one.getValue(), at + "/" + OpenApiPaths.escaped(one.getKey()));
        if (node.isArray()) for (int i = 0; i < node.size(); i++) check(node.get(i), at + "/" + i);
    }

    private static void compiled(String pattern, String at) throws IOException {
        try {
            Pattern.compile(pattern);
        } catch (PatternSyntaxException broken) {
            throw new IOException(
                    at + " is no regular expression: " + broken.getDescription() + " in '" + pattern + "'", broken);
        }
    }
}
