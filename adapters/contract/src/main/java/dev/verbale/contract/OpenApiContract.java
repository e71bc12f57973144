package dev.verbale.contract;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.dialect.Dialects;
import dev.verbale.folder.MediaTypes;
import java.io.IOException;
import java.net.URL;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * An OpenAPI document, 3.0 or 3.1, whose answers are checked. What the document does not know, a path, a status, a media type,
 * is a violation too, and each violation is a check of the test, with its path:
 *
 * <pre>{@code
 * OpenApiContract garden = OpenApiContract.of(Path.of("src/test/contracts/orto.yaml"));
 * garden.holds(client.send(request, BodyHandlers.ofString()));
 * }</pre>
 *
 * <p>From any thread.
 */
public final class OpenApiContract {

    private static final String DOCUMENT = "https://contract.invalid/document";

    private final OpenApiPaths paths;
    private final SchemaRegistry registry;
    private final Map<String, Schema> schemas = new ConcurrentHashMap<>();

    private OpenApiContract(JsonNode document) {
        paths = new OpenApiPaths(document);
        boolean older = document.path("openapi").asString().startsWith("3.0");
        registry = SchemaRegistry.withDefaultDialect(
                older ? Dialects.getOpenApi30() : Dialects.getOpenApi31(),
                builder -> builder.schemas(Map.of(DOCUMENT, document.toString())));
    }

    /**
     * The document in {@code file}, JSON or YAML by its name. References inside it are followed, those to other files are not.
     *
     * @throws IOException where it cannot be read, or is no OpenAPI document; the message says which file
     */
    public static OpenApiContract of(Path file) throws IOException {
        return of(file.toUri().toURL());
    }

    /** The same for a file of the class path, as {@link Class#getResource} finds it. */
    public static OpenApiContract of(URL file) throws IOException {
        JsonNode document = ContractFile.read(file);
        String version = document.path("openapi").asString("");
        if (!version.startsWith("3.") || !document.path("paths").isObject())
            throw new IOException(file + " is no OpenAPI 3 document: it says neither openapi: 3.x nor paths");
        return new OpenApiContract(document);
    }

    /** The same for an answer of the JDK's client. */
    public void holds(HttpResponse<String> response) {
        holds(
                response.request().method(),
                response.uri().toString(),
                response.statusCode(),
                response.headers().firstValue("Content-Type").orElse(""),
                response.body());
    }

    /**
     * Checks an answer.
     *
     * @param url or its path alone
     * @param mediaType of the answer, with its parameters or without; empty where it said none
     * @throws ContractViolated where it does not hold and nobody gathers failed checks
     */
    public void holds(String method, String url, int status, String mediaType, String body) {
        OpenApiPaths.Operation operation = paths.operation(method, url);
        if (operation == null) {
            Verdict.of(method + " " + OpenApiPaths.path(url), of("the contract has no such path or method"));
            return;
        }
        String subject = operation.method().toUpperCase(Locale.ROOT) + " " + operation.template() + " " + status;
        Verdict.of(subject, violations(operation, status, mediaType, body));
    }

    private List<Violation> violations(OpenApiPaths.Operation operation, int status, String mediaType, String body) {
        String response = paths.response(operation, status);
        if (response == null) return of("the contract has no status " + status + ", only " + paths.statuses(operation));
        List<String> types = paths.mediaTypes(response);
        if (types.isEmpty()) return List.of();
        String type = MediaTypes.plain(mediaType);
        String known = known(types, type);
        if (known == null) return of("the media type is '" + type + "', the contract has " + String.join(", ", types));
        String schema = paths.schema(response, known);
        if (schema == null || !(type.endsWith("json"))) return List.of();
        return Violations.in(body, text -> schema(schema).validate(text, InputFormat.JSON));
    }

    private static List<Violation> of(String what) {
        return List.of(new Violation("", what));
    }

    private Schema schema(String pointer) {
        return schemas.computeIfAbsent(pointer, at -> registry.getSchema(SchemaLocation.of(DOCUMENT + "#" + at)));
    }

    private static @Nullable String known(List<String> types, String type) {
        String family = type.replaceFirst("/.*", "/*");
        for (String one : List.of(type, family, "*/*"))
            for (String known : types) if (MediaTypes.plain(known).equals(one)) return known;
        return null;
    }
}
