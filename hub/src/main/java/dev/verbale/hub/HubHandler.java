package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import dev.verbale.viewer.RunsSite;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.eclipse.jetty.io.EofException;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jdbi.v3.core.JdbiException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Whose question it is, and who answers it; what no answer is known to becomes one that says so. */
final class HubHandler extends Handler.Abstract {

    private static final Logger LOG = LoggerFactory.getLogger(HubHandler.class);

    private final Entrance entrance;
    private final Projects projects;
    private final HubApi api;
    private final PageAnswers pages;
    private final HubMetrics metrics;
    private final HubStreams streams;
    private final @Nullable OpenIdEntrance openId;

    /** @param openId how people enter whom a provider knows; null where there is none */
    HubHandler(
            Entrance entrance,
            @Nullable OpenIdEntrance openId,
            Projects projects,
            HubApi api,
            PageAnswers pages,
            HubMetrics metrics,
            HubStreams streams) {
        this.entrance = entrance;
        this.streams = streams;
        this.openId = openId;
        this.projects = projects;
        this.api = api;
        this.pages = pages;
        this.metrics = metrics;
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) {
        long began = System.nanoTime();
        RunsSite.guard(new JettyExchange(request, response, streams, "", ""));
        try {
            answer(request, response);
            if (!streams.goesOn(request, callback)) callback.succeeded();
        } catch (Refused refused) {
            refuse(response, callback, refused.status(), refused.getMessage());
        } catch (JdbiException away) {
            LOG.warn("The database does not answer.", away);
            refuse(response, callback, 503, "the hub's database does not answer");
        } catch (ObjectStorage.StorageAway away) {
            LOG.warn("The storage does not answer.", away);
            refuse(response, callback, 503, "the hub's storage does not answer");
        } catch (IOException | RuntimeException broken) {
            if (!(broken instanceof EofException)) LOG.error("A question met an error.", broken);
            if (response.isCommitted()) callback.failed(broken);
            else refuse(response, callback, 500, "the hub met an error");
        }
        metrics.answered(response.getStatus());
        // Without what stands behind the question mark, and without headers: a secret may be there.
        LOG.atInfo()
                .addKeyValue("method", request.getMethod())
                .addKeyValue("path", Request.getPathInContext(request))
                .addKeyValue("status", response.getStatus())
                .addKeyValue("millis", (System.nanoTime() - began) / 1_000_000)
                .addKeyValue("from", Request.getRemoteAddr(request))
                .log("answered");
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
        if (isWayIn(request, response, method, whole)) return;
        List<String> address = List.of(whole.substring(1).split("/", -1));
        boolean isApi = HubApi.isOf(address);
        if (isApi && method.equals("OPTIONS")) {
            TusAnswers.options(response);
            return;
        }
        Optional<Access> access = entrance.of(request);
        if (access.isEmpty()) {
            if (isApi || !WebMethods.isRead(method)) throw new Refused(401, "say a token: Authorization: Bearer TOKEN");
            HubPages.guard(response);
            HubAnswer.html(response, 401, HubPages.enter("", whole, openId != null));
            return;
        }
        // A browser says who somebody is by itself, also where another site asks.
        if (!WebMethods.isRead(method)) entrance.refuseForeign(request);
        if (isApi) api.answer(request, response, access.get(), address);
        else pages.answer(request, response, access.get(), address);
    }

    /** Whether it was about entering or leaving, which is answered then. */
    private boolean isWayIn(Request request, Response response, String method, String path)
            throws IOException, Refused {
        if (method.equals("POST") && path.equals(Entrance.PATH)) enter(request, response);
        else if (method.equals("POST") && path.equals(Entrance.LEAVE)) entrance.leave(request, response);
        else if (openId != null && method.equals("GET") && path.equals(OpenIdEntrance.BEGIN))
            openId.begin(request, response);
        else if (openId != null && method.equals("GET") && path.equals(OpenIdEntrance.BACK))
            openId.back(request, response);
        else return false;
        return true;
    }

    private void enter(Request request, Response response) throws IOException, Refused {
        try {
            entrance.enter(request, response);
        } catch (Refused wrong) {
            if (wrong.status() != 401) throw wrong;
            HubPages.guard(response);
            String why = "That is no token of this hub, or it was ended.";
            HubAnswer.html(response, 401, HubPages.enter(why, Entrance.PATH, openId != null));
        }
    }
}
