package dev.verbale.hub;

import static dev.verbale.hub.Route.Needed.ADMINISTER;
import static dev.verbale.hub.Route.Needed.ANY_ROLE;
import static dev.verbale.hub.Route.Needed.LABEL;
import static dev.verbale.hub.Route.Needed.NOTHING;
import static dev.verbale.hub.Route.Needed.SEND;

import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** What programs ask: {@code openapi.yaml} says it for them, in the same words. */
final class HubApi {

    private static final List<String> PATH = List.of("api", "v1");

    private final Projects projects;
    private final List<Route> routes;

    HubApi(
            Projects projects,
            TokenAnswers tokens,
            TusAnswers tus,
            KnowledgeAnswers knowledge,
            HistoryAnswers history,
            KeepingAnswers keeping) {
        this.projects = projects;
        routes = List.of(
                Route.of("GET", "openapi.yaml", NOTHING, asked -> describe(asked.response())),
                Route.of("POST", "tokens", ADMINISTER, tokens::add),
                Route.of("DELETE", "tokens", ADMINISTER, tokens::end),
                Route.of("POST", "people", ADMINISTER, tokens::addPerson),
                Route.of("DELETE", "people", ADMINISTER, tokens::endPerson),
                Route.of("HEAD", "uploads/{upload}", NOTHING, tus::head),
                Route.of("PATCH", "uploads/{upload}", NOTHING, tus::patch),
                Route.of("POST", "projects/{project}/runs/{run}/parts/{part}/files", SEND, tus::create),
                Route.of("POST", "projects/{project}/runs/{run}/parts/{part}/end", SEND, tus::end),
                Route.of("PUT", "projects/{project}/runs/{run}/stays", LABEL, asked -> keeping.stays(asked, true)),
                Route.of("DELETE", "projects/{project}/runs/{run}/stays", LABEL, asked -> keeping.stays(asked, false)),
                Route.of("GET", "projects/{project}/keeping", ANY_ROLE, keeping::say),
                Route.of("PUT", "projects/{project}/keeping", ADMINISTER, keeping::set),
                Route.of("GET", "projects/{project}/rules", ANY_ROLE, knowledge::rules),
                Route.of("PUT", "projects/{project}/reasons/{reason}", LABEL, knowledge::know),
                Route.of("DELETE", "projects/{project}/reasons/{reason}", LABEL, knowledge::forget),
                Route.of("GET", "projects/{project}/history", ANY_ROLE, history::list),
                Route.of("GET", "projects/{project}/history/{file}", ANY_ROLE, history::file));
    }

    /** Whether that address is a program's. */
    static boolean isOf(List<String> address) {
        return address.size() > PATH.size() && address.subList(0, PATH.size()).equals(PATH);
    }

    List<Route> routes() {
        return routes;
    }

    /** @param address the parts of the whole path */
    void answer(Request request, Response response, Access access, List<String> address) throws IOException, Refused {
        List<String> below = address.subList(PATH.size(), address.size());
        var known = new TreeSet<String>();
        for (Route route : routes) {
            Optional<Map<String, String>> names = route.names(below);
            if (names.isEmpty()) continue;
            if (!route.isAskedBy(request.getMethod())) {
                known.add(route.method());
                continue;
            }
            var asked = new Asked(request, response, access, names.get());
            refuse(route.needed(), asked);
            route.answer().to(asked);
            return;
        }
        if (known.isEmpty()) throw new Refused(404, "there is nothing of that name; openapi.yaml says what there is");
        response.getHeaders().put("Allow", String.join(", ", known));
        throw new Refused(405, "this is asked with " + String.join(" or ", known));
    }

    private void refuse(Route.Needed needed, Asked asked) throws Refused {
        Access access = asked.access();
        String project = asked.names().get(Route.PROJECT);
        boolean may = switch (needed) {
            case NOTHING -> true;
            case ADMINISTER -> access.isAdministrator();
            case ANY_ROLE -> access.isOf(String.valueOf(project));
            case LABEL -> access.may(Role.LABEL, String.valueOf(project));
            case SEND -> access.may(Role.SEND, String.valueOf(project));
        };
        // Who may do everything begins a project by sending to it.
        boolean isThere = project == null || needed == SEND || projects.has(project);
        if (may && isThere) return;
        String of = project == null ? "" : " in the project " + project;
        throw new Refused(
                403,
                !may && access.isOf(String.valueOf(project)) || project == null
                        ? "this needs the role " + needed.name().toLowerCase(java.util.Locale.ROOT) + of
                        : "you may do nothing" + of);
    }

    private static void describe(Response response) throws IOException {
        try (InputStream in = HubApi.class.getResourceAsStream("openapi.yaml")) {
            if (in == null) throw new IOException("openapi.yaml");
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            HubAnswer.send(response, 200, "application/yaml; charset=utf-8", text);
        }
    }
}
