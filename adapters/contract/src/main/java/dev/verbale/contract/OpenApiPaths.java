package dev.verbale.contract;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Finds its way in an OpenAPI document. Places in it are JSON pointers (RFC 6901), with references inside the document
 * followed.
 *
 * @see <a href="https://spec.openapis.org/oas/v3.1.0#paths-object">OpenAPI, Paths Object</a>
 */
final class OpenApiPaths {

    private final JsonNode document;
    /** What stands before the paths, whatever the servers say; null where they say it. */
    private final @Nullable String base;

    OpenApiPaths(JsonNode document, @Nullable String base) {
        this.document = document;
        this.base = base;
    }

    /**
     * A method of a path.
     *
     * @param template such as {@code /api/plots/{id}}
     * @param pointer where it is
     */
    record Operation(String method, String template, String pointer) {}

    /**
     * Of several templates that fit, the one with the fewest places left open: concrete ones come first. A head is that of
     * what GET would answer, where the document says nothing else.
     */
    @Nullable
    Operation operation(String method, String url) {
        String word = method.toLowerCase(Locale.ROOT);
        Operation found = named(word, url);
        return found == null && word.equals("head") ? named("get", url) : found;
    }

    private @Nullable Operation named(String word, String url) {
        String path = path(url);
        Operation best = null;
        for (String template : document.path("paths").propertyNames()) {
            String at = resolved("/paths/" + escaped(template));
            if (!document.at(at).has(word) || !fits(template, document.at(at), word, path)) continue;
            if (best == null || open(template) < open(best.template()))
                best = new Operation(word, template, resolved(at + "/" + word));
        }
        return best;
    }

    static String path(String url) {
        String path = url.replaceFirst("^[A-Za-z][A-Za-z0-9+.-]*://[^/?#]*", "").replaceFirst("[?#].*", "");
        return path.isEmpty() ? "/" : path;
    }

    private boolean fits(String template, JsonNode item, String word, String path) {
        List<Pattern> prefixes = base == null
                ? OpenApiServers.prefixes(document, item, item.path(word))
                : List.of(Pattern.compile(Pattern.quote(base)));
        for (Pattern prefix : prefixes) {
            Pattern whole = Pattern.compile(prefix.pattern() + pattern(template));
            if (whole.matcher(path).matches() || whole.matcher(decoded(path)).matches()) return true;
        }
        return false;
    }

    /** Without its escapes, but for slashes: these are parts of what they stand in. */
    private static String decoded(String path) {
        try {
            return URLDecoder.decode(path.replace("+", "%2B").replaceAll("(?i)%2f", "%252F"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException odd) {
            return path;
        }
    }

    private static String pattern(String template) {
        var pattern = new StringBuilder();
        Matcher position = Pattern.compile("\\{[^}/]*}").matcher(template);
        int from = 0;
        while (position.find()) {
            pattern.append(Pattern.quote(template.substring(from, position.start())))
                    .append("[^/]+");
            from = position.end();
        }
        return pattern.append(Pattern.quote(template.substring(from))).toString();
    }

    private static long open(String template) {
        return template.chars().filter(c -> c == '{').count();
    }

    /** Where the response with {@code status} is: its own, that of its hundred such as {@code 4XX}, or the default. */
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

    /** What it says of headers, with references in it followed. */
    JsonNode headers(String pointer) {
        ObjectNode headers = JsonNodeFactory.instance.objectNode();
        for (Map.Entry<String, JsonNode> one : document.at(pointer).properties())
            headers.set(one.getKey(), document.at(resolved(pointer + "/" + escaped(one.getKey()))));
        return headers;
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

    static String escaped(String name) {
        return name.replace("~", "~0").replace("/", "~1");
    }
}
