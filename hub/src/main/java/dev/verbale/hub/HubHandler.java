package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import dev.verbale.viewer.RunsSite;
import dev.verbale.viewer.WebExchange;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jdbi.v3.core.JdbiException;
import org.jspecify.annotations.Nullable;

/** What is where, and who may have it. */
final class HubHandler extends Handler.Abstract {

    private static final List<String> API = List.of("api", "v1");
    private static final int LARGEST_MANIFEST = 64 << 20;

    private final Entrance entrance;
    private final TokenAnswers tokens;
    private final Projects projects;
    private final Uploads uploads;
    private final TusAnswers tus;
    private final HubSites sites;
    private final KnowledgeAnswers knowledge;
    private final HistoryAnswers history;
    private final KeepingAnswers keeping;
    private final HubMetrics metrics;

    HubHandler(
            Entrance entrance,
            TokenAnswers tokens,
            Projects projects,
            Uploads uploads,
            TusAnswers tus,
            HubSites sites,
            KnowledgeAnswers knowledge,
            HistoryAnswers history,
            KeepingAnswers keeping,
            HubMetrics metrics) {
        this.entrance = entrance;
        this.tokens = tokens;
        this.projects = projects;
        this.uploads = uploads;
        this.tus = tus;
        this.sites = sites;
        this.knowledge = knowledge;
        this.history = history;
        this.keeping = keeping;
        this.metrics = metrics;
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) {
        RunsSite.guard(new JettyExchange(request, response, ""));
        try {
            answer(request, response);
            callback.succeeded();
        } catch (Refused refused) {
            refuse(response, callback, refused.status(), refused.getMessage());
        } catch (JdbiException away) {
            refuse(response, callback, 503, "the hub's database does not answer");
        } catch (IOException | RuntimeException broken) {
            if (response.isCommitted()) callback.failed(broken);
            else refuse(response, callback, 500, "the hub met an error");
        }
        metrics.answered(response.getStatus());
        return true;
    }

    private static void refuse(Response response, Callback callback, int status, @Nullable String why) {
        try {
            if (status == 401) response.getHeaders().put("WWW-Authenticate", "Bearer");
            if (status == 429 || status == 503) response.getHeaders().put("Retry-After", "10");
            HubAnswer.text(response, status, String.valueOf(why));
            callback.succeeded();
        } catch (IOException gone) {
            callback.failed(gone);
        }
    }

    private void answer(Request request, Response response) throws IOException, Refused {
        String method = request.getMethod();
        String whole = Request.getPathInContext(request);
        if (whole.equals("/health")) {
            projects.has(""); // asks the database
            HubAnswer.text(response, 200, "here");
            return;
        }
        if (whole.equals(Entrance.PATH) && method.equals("POST")) {
            enter(request, response);
            return;
        }
        List<String> path = List.of(whole.substring(1).split("/", -1));
        boolean isApi = path.size() > 2 && path.subList(0, 2).equals(API);
        if (isApi && method.equals("OPTIONS")) {
            TusAnswers.options(response);
            return;
        }
        Optional<Access> access = entrance.of(request);
        if (access.isEmpty()) {
            if (isApi || !WebMethods.isRead(method)) throw new Refused(401, "say a token: Authorization: Bearer TOKEN");
            HubPages.guard(response);
            HubAnswer.html(response, 401, HubPages.enter("", whole));
            return;
        }
        // A browser says who somebody is by itself, also where another site asks.
        if (!WebMethods.isRead(method)) Form.refuseForeign(request);
        if (isApi) api(request, response, access.get(), path.subList(2, path.size()));
        else if (method.equals("POST")
                && path.size() == 4
                && path.get(0).equals("projects")
                && path.get(2).equals("reasons")
                && projects.has(path.get(1))) knowledge.form(request, response, access.get(), path.get(1), path.get(3));
        else if (!WebMethods.isRead(method)) throw new Refused(405, "pages are read with GET and HEAD");
        else page(request, response, access.get(), whole, path);
    }

    private void enter(Request request, Response response) throws IOException, Refused {
        try {
            entrance.enter(request, response);
        } catch (Refused wrong) {
            if (wrong.status() != 401) throw wrong;
            HubPages.guard(response);
            HubAnswer.html(
                    response, 401, HubPages.enter("That is no token of this hub, or it was ended.", Entrance.PATH));
        }
    }

    private void page(Request request, Response response, Access access, String whole, List<String> path)
            throws IOException, Refused {
        if (whole.equals("/metrics")) {
            if (!access.isAdministrator()) throw new Refused(403, "only administrators see the metrics");
            HubAnswer.send(response, 200, HubMetrics.TYPE, metrics.text());
        } else if (whole.equals("/")) {
            HubPages.guard(response);
            Map<String, String> newest = new LinkedHashMap<>();
            for (String project : projects.all())
                if (access.may(Role.READ, project))
                    newest.put(project, sites.of(project).newest("projects/" + project + "/"));
            boolean isStranger = newest.isEmpty() && !access.isAdministrator();
            HubAnswer.html(response, 200, isStranger ? HubPages.stranger(access.label()) : HubPages.projects(newest));
        } else if (path.size() > 1 && path.get(0).equals("projects")) {
            String project = path.get(1);
            // Who may not see it is not told that it is there.
            if (!access.may(Role.READ, project) || !projects.has(project)) throw missing();
            boolean isReason = path.size() == 4 && path.get(2).equals("reasons");
            boolean isTest = path.size() == 3 && path.get(2).equals("tests");
            if (!isReason && !isTest) {
                site(request, response, project, whole);
                return;
            }
            HubPages.guard(response);
            if (isReason) knowledge.page(response, access, project, path.get(3));
            else history.test(request, response, project);
        } else throw missing();
    }

    private void site(Request request, Response response, String project, String whole) throws IOException {
        String below = whole.substring("/projects/".length() + project.length());
        WebExchange exchange = new JettyExchange(request, response, below);
        if (!below.isEmpty()) sites.of(project).answer(exchange);
        else {
            exchange.set("Location", project + "/");
            exchange.answer(301);
        }
    }

    private void api(Request request, Response response, Access access, List<String> path) throws IOException, Refused {
        String method = request.getMethod();
        if (path.size() == 2 && path.get(0).equals("uploads") && path.get(1).matches("\\d{1,18}")) {
            long id = Long.parseLong(path.get(1));
            if (method.equals("HEAD")) tus.head(request, response, access, id);
            else if (method.equals("PATCH")) tus.patch(request, response, access, id);
            else throw new Refused(405, "an upload knows HEAD and PATCH");
        } else if (path.equals(List.of("tokens"))) tokens.answer(request, response, access);
        else if (path.equals(List.of("people"))) tokens.people(request, response, access);
        else if (path.size() > 2 && path.get(0).equals("projects"))
            project(request, response, access, path.get(1), path.subList(2, path.size()));
        else throw missing();
    }

    private void project(Request request, Response response, Access access, String project, List<String> path)
            throws IOException, Refused {
        if (path.size() == 5 && path.get(0).equals("runs") && path.get(2).equals("parts")) {
            part(request, response, access, project, path);
            return;
        }
        if (!access.isOf(project) || !projects.has(project)) throw new Refused(403, "this token is not of " + project);
        if (path.size() == 2 && path.get(0).equals("reasons")) {
            knowledge.change(request, response, access, project, path.get(1));
            return;
        }
        if (path.equals(List.of("keeping"))) {
            keeping.answer(request, response, access, project);
            return;
        }
        if (path.size() == 3 && path.get(0).equals("runs") && path.get(2).equals("stays")) {
            keeping.stays(request, response, access, project, path.get(1));
            return;
        }
        boolean isOneOfHistory = path.size() == 2 && path.get(0).equals("history");
        if (!isOneOfHistory && !path.equals(List.of("rules")) && !path.equals(List.of("history"))) throw missing();
        if (!WebMethods.isRead(request.getMethod())) throw new Refused(405, "this is read with GET and HEAD");
        if (isOneOfHistory) history.file(response, project, path.get(1));
        else if (path.get(0).equals("rules")) knowledge.rules(response, project);
        else history.list(response, project);
    }

    private void part(Request request, Response response, Access access, String project, List<String> path)
            throws IOException, Refused {
        if (!access.may(Role.SEND, project) || !(access.isAdministrator() || projects.has(project)))
            throw new Refused(403, "this token may not send runs of " + project);
        if (!Projects.isName(project)) throw new Refused(422, "no project can be called that");
        if (!request.getMethod().equals("POST")) throw new Refused(405, "files and ends are sent with POST");
        if (path.get(4).equals("files")) tus.create(request, response, project, path.get(1), path.get(3));
        else if (path.get(4).equals("end")) end(request, response, project, path.get(1), path.get(3));
        else throw missing();
    }

    private void end(Request request, Response response, String project, String run, String part)
            throws IOException, Refused {
        String manifest;
        try (InputStream in = Content.Source.asInputStream(request)) {
            byte[] bytes = in.readNBytes(LARGEST_MANIFEST + 1);
            if (bytes.length > LARGEST_MANIFEST) throw new Refused(413, "the list of files is too long");
            manifest = new String(bytes, StandardCharsets.UTF_8);
        }
        Map<String, String> hashes = new LinkedHashMap<>();
        for (String line : manifest.lines().toList()) {
            if (!line.matches("[0-9a-f]{64} {2}.+"))
                throw new Refused(400, "each line is a hash, two blanks and a path");
            hashes.put(line.substring(66), line.substring(0, 64));
        }
        List<String> wrong = uploads.end(project, run, part, hashes);
        HubAnswer.text(response, wrong.isEmpty() ? 200 : 409, wrong.isEmpty() ? "whole" : String.join("\n", wrong));
    }

    private static Refused missing() {
        return new Refused(404, "there is no such project, run or file");
    }
}
