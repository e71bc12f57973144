package dev.verbale.hub;

import dev.verbale.contract.OpenApiContract;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URL;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

/** What {@code openapi.yaml} says of the hub: each answer that these tests get is held to it. */
final class DescribedApi {

    private static final URL DOCUMENT = HubApi.class.getResource("openapi.yaml");
    private static final String BELOW = "/api/v1/";
    private static final OpenApiContract CONTRACT;

    static {
        try {
            CONTRACT = OpenApiContract.of(DOCUMENT);
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private DescribedApi() {}

    /** What is asked as the document does not know it is refused, which no document describes. */
    static void hold(HttpResponse<String> answer) {
        String path = answer.request().uri().getRawPath();
        String method = answer.request().method();
        if (!path.startsWith(BELOW)) return;
        List<String> address = List.of(path.substring(BELOW.length()).split("/", -1));
        boolean isKnown = operations().keySet().stream().anyMatch(operation -> {
            String[] parts = operation.split(" ");
            return Route.of(parts[0], parts[1], Route.Needed.NOTHING, asked -> {})
                            .names(address)
                            .isPresent()
                    && parts[0].equals(method);
        });
        if (!isKnown || path.contains("%")) return;
        CONTRACT.holds(answer);
    }

    /** Each as {@code METHOD path}, with the role that its summary says is needed. */
    static Map<String, String> operations() {
        Map<String, String> operations = new java.util.TreeMap<>();
        for (Map.Entry<?, ?> path : ((Map<?, ?>) document().get("paths")).entrySet())
            for (Map.Entry<?, ?> one : ((Map<?, ?>) path.getValue()).entrySet())
                if (!one.getKey().equals("parameters"))
                    operations.put(
                            one.getKey().toString().toUpperCase(java.util.Locale.ROOT) + " "
                                    + path.getKey().toString().substring(1),
                            role(((Map<?, ?>) one.getValue()).get("summary").toString()));
        return operations;
    }

    private static String role(String summary) {
        var roles = new TreeSet<String>();
        for (String role : List.of("send", "label", "administer"))
            if (summary.contains("Needs the role " + role)) roles.add(role);
        return summary.contains("Needs any role") ? "any role" : String.join(",", roles);
    }

    private static Map<?, ?> document() {
        try (InputStream in = DOCUMENT.openStream()) {
            return (Map<?, ?>) new Load(LoadSettings.builder().build()).loadFromInputStream(in);
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}
