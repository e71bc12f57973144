package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import dev.verbale.viewer.WebExchange;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** What people see: the projects, and in each of them its runs, reasons and tests. */
final class PageAnswers {

    private final Projects projects;
    private final HubSites sites;
    private final KnowledgeAnswers knowledge;
    private final HistoryAnswers history;
    private final HubMetrics metrics;
    private final HubStreams streams;

    PageAnswers(
            Projects projects,
            HubSites sites,
            KnowledgeAnswers knowledge,
            HistoryAnswers history,
            HubMetrics metrics,
            HubStreams streams) {
        this.streams = streams;
        this.projects = projects;
        this.sites = sites;
        this.knowledge = knowledge;
        this.history = history;
        this.metrics = metrics;
    }

    /** @param address the parts of the whole path */
    void answer(Request request, Response response, Access access, List<String> address) throws IOException, Refused {
        boolean isRead = WebMethods.isRead(request.getMethod());
        boolean isForm = request.getMethod().equals("POST") && isOne(address, "reasons");
        if (!isRead && !isForm) throw new Refused(405, "pages are read with GET and HEAD");
        if (address.equals(List.of("metrics"))) {
            if (!access.isAdministrator()) throw new Refused(403, "only administrators see the metrics");
            HubAnswer.send(response, 200, HubMetrics.TYPE, metrics.text());
        } else if (address.equals(List.of(""))) all(request, response, access);
        else if (address.size() > 1 && address.get(0).equals("projects")) {
            String project = address.get(1);
            // Who may not see it is not told that it is there.
            if (!access.may(Role.READ, project) || !projects.has(project)) throw missing();
            project(request, response, access, address);
        } else throw missing();
    }

    /** Whether it is one of those in a project. */
    private static boolean isOne(List<String> address, String kind) {
        return address.size() == 4
                && address.get(0).equals("projects")
                && address.get(2).equals(kind);
    }

    private void all(Request request, Response response, Access access) throws IOException {
        HubPages.guard(response);
        Map<String, String> newest = new LinkedHashMap<>();
        for (String project : projects.all())
            if (access.may(Role.READ, project))
                newest.put(project, sites.of(project).newest("projects/" + project + "/"));
        boolean isStranger = newest.isEmpty() && !access.isAdministrator();
        // Whom a proxy names, or who says a token each time, has entered nothing that they could leave.
        boolean mayLeave = Cookies.get(request, Entrance.COOKIE).isPresent();
        HubAnswer.html(
                response,
                200,
                isStranger
                        ? HubPages.stranger(access.label(), mayLeave)
                        : HubPages.projects(access.label(), mayLeave, newest));
    }

    private void project(Request request, Response response, Access access, List<String> address)
            throws IOException, Refused {
        var asked = new Asked(
                request,
                response,
                access,
                Map.of(Route.PROJECT, address.get(1), "reason", address.get(address.size() - 1)));
        if (isOne(address, "reasons")) {
            if (request.getMethod().equals("POST")) {
                knowledge.form(asked);
                sites.makeAhead(asked.project());
            } else {
                HubPages.guard(response);
                knowledge.page(asked);
            }
        } else if (address.size() == 3 && address.get(2).equals("tests")) {
            HubPages.guard(response);
            history.test(asked);
        } else site(request, response, address);
    }

    private void site(Request request, Response response, List<String> address) throws IOException {
        String project = address.get(1);
        String below = Request.getPathInContext(request).substring("/projects/".length() + project.length());
        WebExchange exchange = new JettyExchange(request, response, streams, project, below);
        if (!below.isEmpty()) sites.of(project).answer(exchange);
        else {
            exchange.set("Location", project + "/");
            exchange.answer(301);
        }
    }

    private static Refused missing() {
        return new Refused(404, "there is no such project, run or file");
    }
}
