package dev.verbale.contract;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;

/**
 * What the addresses of servers put before a path: those of the operation, or else of its path, or else of the document.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#server-object">OpenAPI, Server Object</a>
 */
final class OpenApiServers {

    private static final Pattern VARIABLE = Pattern.compile("\\{([^}]*)}");

    private OpenApiServers() {}

    /** Patterns of what stands before the paths; one of nothing where no server is named. */
    static List<Pattern> prefixes(JsonNode document, JsonNode path, JsonNode operation) {
        JsonNode servers = operation.has("servers")
                ? operation.path("servers")
                : path.has("servers") ? path.path("servers") : document.path("servers");
        List<Pattern> prefixes = new ArrayList<>();
        for (JsonNode server : servers) prefixes.add(prefix(server));
        return prefixes.isEmpty() ? List.of(Pattern.compile("")) : prefixes;
    }

    private static Pattern prefix(JsonNode server) {
        String path = server.path("url")
                .asString("")
                .replaceFirst("^[A-Za-z][A-Za-z0-9+.-]*://[^/]*", "")
                .replaceFirst("^//[^/]*", "")
                .replaceFirst("[?#].*", "");
        if (path.endsWith("/")) path = path.substring(0, path.length() - 1);
        if (!path.isEmpty() && !path.startsWith("/")) path = "/" + path;
        var pattern = new StringBuilder();
        Matcher variable = VARIABLE.matcher(path);
        int from = 0;
        while (variable.find()) {
            pattern.append(Pattern.quote(path.substring(from, variable.start())));
            pattern.append(values(server.path("variables").path(variable.group(1))));
            from = variable.end();
        }
        return Pattern.compile(
                pattern.append(Pattern.quote(path.substring(from))).toString());
    }

    /** An expression for the values that a variable may have, or where nobody says these, its default or any part of a path. */
    private static String values(JsonNode variable) {
        List<String> values = new ArrayList<>();
        for (JsonNode one : variable.path("enum")) values.add(Pattern.quote(one.asString("")));
        if (values.isEmpty()) {
            values.add(Pattern.quote(variable.path("default").asString("")));
            values.add("[^/]+");
        }
        return "(?:" + String.join("|", values) + ")";
    }
}
