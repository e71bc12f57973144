package dev.verbale.contract;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * Finds its way in an OpenAPI document. Places in it are JSON pointers (RFC 6901), with references inside the document
 * followed.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#paths-object">OpenAPI, Paths Object</a>
 */
final class OpenApiPaths {

    private final JsonNode document;

    OpenApiPaths(JsonNode document) {
        this.document = document;
    }

    /**
     * A method of a path.
     *
     * @param template such as {@code /api/plots/{id}}
     * @param pointer where it is
     */
    record Operation(String method, String template, String pointer) {}

    /** Of several templates that fit, the one with the fewest places left open: concrete ones come first. */
    @Nullable
    Operation operation(String method, String url) {
        String path = path(url);
        String word = method.toLowerCase(Locale.ROOT);
        Operation best = null;
        for (String template : document.path("paths").propertyNames()) {
            String at = resolved("/paths/" + escaped(template));
            if (!fits(template, path) || !document.at(at).has(word)) continue;
            if (best == null || open(template) < open(best.template()))
                best = new Operation(word, template, resolved(at + "/" + word));
        }
        return best;
    }

    static String path(String url) {
        String path = url.replaceFirst("^[A-Za-z][A-Za-z0-9+.-]*://[^/?#]*", "").replaceFirst("[?#].*", "");
        return path.isEmpty() ? "/" : path;
    }

    private boolean fits(String template, String path) {
        for (String prefix : prefixes())
            if (path.startsWith(prefix)
                    && pattern(template)
                            .matcher(path.substring(prefix.length()))
                            .matches()) return true;
        return false;
    }

    /** What the servers' addresses put before the paths. */
    private List<String> prefixes() {
        List<String> prefixes = new ArrayList<>(List.of(""));
        for (JsonNode server : document.path("servers")) {
            try {
                String path = URI.create(server.path("url").asString("")).getPath();
                if (path != null && path.length() > 1) prefixes.add(path.replaceFirst("/$", ""));
            } catch (IllegalArgumentException withVariables) {
                continue; // nobody says their values here
            }
        }
        return prefixes;
    }

    private static Pattern pattern(String template) {
        var pattern = new StringBuilder();
        for (String part : template.split("(?=\\{)|(?<=\\})"))
            pattern.append(part.startsWith("{") && part.endsWith("}") ? "[^/]+" : Pattern.quote(part));
        return Pattern.compile(pattern.toString());
    }

    private static long open(String template) {
        return template.chars().filter(c -> c == '{').count();
    }

    /** Where the answer with {@code status} is: its own, that of its hundred such as {@code 4XX}, or the default. */
    @Nullable
    String response(Operation operation, int status) {
        String responses = resolved(operation.pointer() + "/responses");
        for (String one : List.of(String.valueOf(status), status / 100 + "XX", "default"))
            if (document.at(responses).has(one)) return resolved(responses + "/" + one);
        return null;
    }

    String statuses(Operation operation) {
        return String.join(
                ", ", document.at(resolved(operation.pointer() + "/responses")).propertyNames());
    }

    List<String> mediaTypes(String response) {
        return List.copyOf(document.at(response + "/content").propertyNames());
    }

    @Nullable
    String schema(String response, String mediaType) {
        String at = response + "/content/" + escaped(mediaType) + "/schema";
        return document.at(at).isMissingNode() ? null : at;
    }

    /** {@code pointer}, or where the reference there leads. */
    private String resolved(String pointer) {
        String at = pointer;
        for (int hops = 0; hops < 10; hops++) {
            String reference = document.at(at).path("$ref").asString("");
            if (!reference.startsWith("#/")) return at;
            at = reference.substring(1);
        }
        return at;
    }

    private static String escaped(String name) {
        return name.replace("~", "~0").replace("/", "~1");
    }
}
