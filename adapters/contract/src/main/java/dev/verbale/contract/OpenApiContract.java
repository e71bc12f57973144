package dev.verbale.contract;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SchemaRegistryConfig;
import com.networknt.schema.SpecificationVersion;
import dev.verbale.folder.MediaTypes;
import java.io.IOException;
import java.net.URL;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * An OpenAPI document, 3.0 or 3.1, whose answers are checked. What the document does not know, a path, a status, a media type,
 * is a violation too, and each violation is a check of the test, with its path:
 *
 * <pre>{@code
 * OpenApiContract garden = OpenApiContract.of(Path.of("src/test/contracts/orto.yaml"));
 * garden.holds(client.send(request, BodyHandlers.ofString()));
 * }</pre>
 *
 * <p>A path is looked for behind what the document's servers put before it. Bodies of JSON and of plain text are checked; of any
 * other only the media type is, and the check's name says so. From any thread.
 *
 * @since 0.2.0
 */
public final class OpenApiContract {

    private static final String DOCUMENT = "https://contract.invalid/document";
    /** Answers that have no body, whoever gives one (RFC 9110, 6.4.1). */
    private static final Set<Integer> BODILESS = Set.of(204, 205, 304);

    private static final JsonMapper JSON = new JsonMapper();

    private final JsonNode document;
    private final AttachedDocument attached;
    private final OpenApiPaths paths;
    private final SchemaRegistry registry;
    private final Map<String, Schema> schemas = new ConcurrentHashMap<>();

    private OpenApiContract(JsonNode document, @Nullable String base, AttachedDocument attached) {
        this.document = document;
        this.attached = attached;
        paths = new OpenApiPaths(document, base);
        registry = SchemaRegistry.withDefaultDialect(
                SpecificationVersion.DRAFT_2020_12,
                builder -> builder.schemas(Map.of(DOCUMENT, document.toString()))
                        .schemaRegistryConfig(SchemaRegistryConfig.builder()
                                .formatAssertionsEnabled(true) // a contract that says uuid means one
                                .build()));
    }

    /**
     * The document in {@code file}, JSON or YAML by its name. References inside it are followed, and those to files in its folder.
     *
     * @throws IOException where it cannot be read, is no OpenAPI document, or has something for responses that cannot be checked,
     *     such as a reference to a file elsewhere; the message says which file, and where in it
     */
    public static OpenApiContract of(Path file) throws IOException {
        return of(ContractFile.address(file));
    }

    /** The contract in a file of the class path, as {@link Class#getResource} finds it. */
    public static OpenApiContract of(URL file) throws IOException {
        JsonNode document = whole(file);
        String version = document.path("openapi").asString("");
        if (!version.matches("3\\.[01](\\..*)?") || !document.path("paths").isObject())
            throw new IOException(file + " is no OpenAPI document of 3.0 or 3.1: it says 'openapi: " + version + "'"
                    + (document.path("paths").isObject() ? "" : " and has no paths"));
        try {
            SchemaPatterns.check(document, "");
            JsonNode plain = ResponseSchemas.in(document);
            OpenApiCheck.of(plain);
            SchemaCycles.refuse(plain);
            return new OpenApiContract(plain, null, new AttachedDocument(plain));
        } catch (IOException unfit) {
            throw new IOException(file + " cannot be checked against: " + unfit.getMessage(), unfit);
        } catch (RuntimeException | StackOverflowError broken) {
            throw new IOException(file + " cannot be checked against: " + broken, broken);
        }
    }

    private static JsonNode whole(URL file) throws IOException {
        try {
            return ContractFiles.read(file);
        } catch (IOException outside) {
            boolean refers = String.valueOf(outside.getMessage()).contains(" refers to ");
            throw !refers
                    ? outside
                    : new IOException(file + " cannot be checked against: " + outside.getMessage(), outside);
        }
    }

    /**
     * This contract for a server that has the paths behind {@code base}, such as {@code /garden} or nothing, whatever the
     * document says of servers.
     */
    public OpenApiContract servedAt(String base) {
        return new OpenApiContract(document, base.replaceFirst("/$", ""), attached);
    }

    /** Checks a response of the JDK's client against the contract, with its headers. */
    public void holds(HttpResponse<String> response) {
        holds(
                response.request().method(),
                response.uri().toString(),
                response.statusCode(),
                response.headers().map(),
                response.body());
    }

    /**
     * Checks a response, with its headers.
     *
     * @param url or its path alone, which begins as the servers' do
     * @param headers of the response, in any case; the media type is that of {@code Content-Type}
     * @throws ContractViolated where it does not hold and nobody gathers failed checks
     */
    public void holds(String method, String url, int status, Map<String, List<String>> headers, String body) {
        String type = headers.entrySet().stream()
                .filter(one -> "Content-Type".equalsIgnoreCase(one.getKey())
                        && !one.getValue().isEmpty())
                .map(one -> one.getValue().get(0))
                .findFirst()
                .orElse("");
        OpenApiPaths.Operation operation = paths.operation(method, url);
        String response = operation == null ? null : paths.response(operation, status);
        if (operation != null && response != null) {
            String at = response + "/headers";
            List<Violation> violations =
                    ResponseHeaders.violations(paths.headers(at), at, headers, (schema, json) -> json(schema, json));
            String subject = method.toUpperCase(Locale.ROOT) + " " + operation.template() + " " + status;
            if (!violations.isEmpty()) Verdict.of("headers of " + subject, violations);
        }
        holds(method, url, status, type, body);
    }

    /**
     * Checks a response.
     *
     * @param url or its path alone, which begins as the servers' do
     * @param mediaType of the response, with its parameters or without; empty where it said none
     * @throws ContractViolated where it does not hold and nobody gathers failed checks
     */
    public void holds(String method, String url, int status, String mediaType, String body) {
        attached.attach();
        OpenApiPaths.Operation operation = paths.operation(method, url);
        if (operation == null) {
            Verdict.of(method + " " + OpenApiPaths.path(url), of("the contract has no such path or method"));
            return;
        }
        String subject = method.toUpperCase(Locale.ROOT) + " " + operation.template() + " " + status;
        String response = paths.response(operation, status);
        if (response == null)
            Verdict.of(subject, of("the contract has no status " + status + ", only " + paths.statuses(operation)));
        else answered(subject, method, status, response, MediaTypes.plain(mediaType), body == null ? "" : body);
    }

    private void answered(String subject, String method, int status, String response, String type, String body) {
        boolean bodiless = BODILESS.contains(status) || status < 200;
        if (bodiless && !body.isEmpty()) {
            Verdict.of(subject, of("there is a body of " + body.length() + " characters, and " + status + " has none"));
            return;
        }
        boolean isHead = method.equalsIgnoreCase("HEAD");
        List<String> types = paths.mediaTypes(response);
        String known = known(types, type);
        boolean saysNothing = bodiless || (isHead && type.isEmpty());
        if (types.isEmpty() || saysNothing) Verdict.of(subject, List.of());
        else if (known == null)
            Verdict.of(subject, of("the media type is '" + type + "', the contract has " + String.join(", ", types)));
        else if (isHead) Verdict.of(subject, List.of());
        else content(subject, paths.schema(response, known), type, body);
    }

    private void content(String subject, @Nullable String schema, String type, String body) {
        if (schema == null) Verdict.of(subject, List.of());
        else if (type.endsWith("/json") || type.endsWith("+json")) Verdict.of(subject, json(schema, body));
        else if (type.equals("text/plain")) Verdict.of(subject, text(schema, body));
        else Verdict.of(subject + ", whose body of " + type + " is not looked at", List.of());
    }

    /** A plain text may be meant as one, or as the number that it is. */
    private List<Violation> text(String schema, String body) {
        List<Violation> asText = json(schema, JSON.writeValueAsString(body));
        boolean isScalar = body.strip().matches("-?\\d[\\d.eE+-]*|true|false");
        return asText.isEmpty() || !isScalar || !json(schema, body).isEmpty() ? asText : List.of();
    }

    private List<Violation> json(String schema, String json) {
        return Violations.in(json, text -> schema(schema).validate(text, InputFormat.JSON));
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
