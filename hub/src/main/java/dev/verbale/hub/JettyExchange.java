package dev.verbale.hub;

import dev.verbale.viewer.EventFeed;
import dev.verbale.viewer.WebExchange;
import java.io.IOException;
import java.io.OutputStream;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.jspecify.annotations.Nullable;

/** One of Jetty's, below the path of a project. */
final class JettyExchange implements WebExchange {

    private final Request request;
    private final Response response;
    private final String path;
    private final HubStreams streams;
    private final String project;

    /** @param path below that of the project */
    JettyExchange(Request request, Response response, HubStreams streams, String project, String path) {
        this.request = request;
        this.response = response;
        this.streams = streams;
        this.project = project;
        this.path = path;
    }

    @Override
    public String method() {
        return request.getMethod();
    }

    @Override
    public String path() {
        return path;
    }

    @Override
    public @Nullable String header(String name) {
        return request.getHeaders().get(name);
    }

    @Override
    public void set(String name, String value) {
        response.getHeaders().put(name, value);
    }

    @Override
    public void answer(int status) throws IOException {
        response.setStatus(status);
        Content.Sink.asOutputStream(response).close();
    }

    @Override
    public OutputStream answer(int status, long length) {
        response.setStatus(status);
        if (length != UNKNOWN) response.getHeaders().put("Content-Length", length);
        return Content.Sink.asOutputStream(response);
    }

    @Override
    public void stream(EventFeed feed) throws IOException {
        if (streams.open(request, response, project, feed)) return;
        set("Retry-After", "10");
        HubAnswer.text(response, 503, "Too many look at once.");
    }
}
