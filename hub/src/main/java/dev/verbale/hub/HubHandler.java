package dev.verbale.hub;

import dev.verbale.hub.Tokens.Access;
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
    private final Tokens tokens;
    private final Projects projects;
    private final Uploads uploads;
    private final TusAnswers tus;
    private final HubSites sites;
    private final HubMetrics metrics;

    HubHandler(
            Entrance entrance,
            Tokens tokens,
            Projects projects,
            Uploads uploads,
            TusAnswers tus,
            HubSites sites,
            HubMetrics metrics) {
        this.entrance = entrance;
        this.tokens = tokens;
        this.projects = projects;
        this.uploads = uploads;
        this.tus = tus;
        this.sites = sites;
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
            response.getHeaders().put("Content-Security-Policy", HubPages.POLICY);
            HubAnswer.html(response, 401, HubPages.enter("", whole));
        } else if (isApi) api(request, response, access.get(), path.subList(2, path.size()));
        else if (!WebMethods.isRead(method)) throw new Refused(405, "pages are read with GET and HEAD");
        else page(request, response, access.get(), whole, path);
    }

    private void enter(Request request, Response response) throws IOException, Refused {
        try {
            entrance.enter(request, response);
        } catch (Refused wrong) {
            if (wrong.status() != 401) throw wrong;
            response.getHeaders().put("Content-Security-Policy", HubPages.POLICY);
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
            response.getHeaders().put("Content-Security-Policy", HubPages.POLICY);
            HubAnswer.html(
                    response,
                    200,
                    HubPages.projects(projects.all().stream()
                            .filter(one -> access.may(Role.READ, one))
                            .toList()));
        } else if (path.size() > 1 && path.get(0).equals("projects")) {
            String project = path.get(1);
            // Who may not see it is not told that it is there.
            if (!access.may(Role.READ, project) || !projects.has(project)) throw missing();
            String below = whole.substring("/projects/".length() + project.length());
            WebExchange exchange = new JettyExchange(request, response, below);
            if (!below.isEmpty()) sites.of(project).answer(exchange);
            else {
                exchange.set("Location", project + "/");
                exchange.answer(301);
            }
        } else throw missing();
    }

    private void api(Request request, Response response, Access access, List<String> path) throws IOException, Refused {
        String method = request.getMethod();
        if (path.size() == 2 && path.get(0).equals("uploads") && path.get(1).matches("\\d{1,18}")) {
            long id = Long.parseLong(path.get(1));
            if (method.equals("HEAD")) tus.head(request, response, access, id);
            else if (method.equals("PATCH")) tus.patch(request, response, access, id);
            else throw new Refused(405, "an upload knows HEAD and PATCH");
        } else if (path.size() == 1 && path.get(0).equals("tokens")) tokens(request, response, access);
        else if (path.size() == 7
                && path.get(0).equals("projects")
                && path.get(2).equals("runs")
                && path.get(4).equals("parts")) {
            String project = path.get(1);
            if (!access.may(Role.SEND, project) || !(access.isAdministrator() || projects.has(project)))
                throw new Refused(403, "this token may not send runs of " + project);
            if (!Projects.isName(project)) throw new Refused(422, "no project can be called that");
            if (!method.equals("POST")) throw new Refused(405, "files and ends are sent with POST");
            if (path.get(6).equals("files")) tus.create(request, response, project, path.get(3), path.get(5));
            else if (path.get(6).equals("end")) end(request, response, project, path.get(3), path.get(5));
            else throw missing();
        } else throw missing();
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

    private void tokens(Request request, Response response, Access access) throws IOException, Refused {
        if (!access.isAdministrator()) throw new Refused(403, "only administrators make and end tokens");
        String label = parameter(request, "label");
        if (label.isEmpty() || label.length() > 200)
            throw new Refused(422, "say whose token it is: label, at most 200 characters");
        if (request.getMethod().equals("DELETE")) {
            int ended = tokens.end(label);
            if (ended == 0) throw new Refused(404, "there is no token of " + label);
            HubAnswer.text(response, 200, ended + " ended");
            return;
        }
        if (!request.getMethod().equals("POST"))
            throw new Refused(405, "tokens are made with POST and ended with DELETE");
        String project = parameter(request, "project");
        String role = parameter(request, "role");
        if (!Projects.isName(project))
            throw new Refused(422, "a project is called by letters, digits, '.', '_' and '-'");
        if (!role.equals(Role.SEND.word()) && !role.equals(Role.READ.word()))
            throw new Refused(422, "the role is send or read");
        HubAnswer.text(
                response, 201, tokens.add(role.equals(Role.SEND.word()) ? Role.SEND : Role.READ, project, label));
    }

    private static String parameter(Request request, String name) {
        String value = Request.extractQueryParameters(request).getValue(name);
        return value == null ? "" : value.strip();
    }

    private static Refused missing() {
        return new Refused(404, "there is no such project, run or file");
    }
}
