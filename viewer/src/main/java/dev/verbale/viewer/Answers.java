package dev.verbale.viewer;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;

/** What is where: the list of runs, each run's page, and streams of what is new in them. */
final class Answers implements HttpHandler {

    private static final int MAX_STREAMS = 64;
    private static final String EVENTS = "events";

    private final ViewerOptions options;
    private final ViewedRuns runs;
    private final Semaphore streams = new Semaphore(MAX_STREAMS);

    Answers(ViewerOptions options, ViewedRuns runs) {
        this.options = options;
        this.runs = runs;
    }

    @Override
    public void handle(HttpExchange exchange) throws IOException {
        try {
            answer(exchange, List.of(exchange.getRequestURI().getPath().split("/", -1)));
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    private void answer(HttpExchange exchange, List<String> path) throws IOException {
        if (path.equals(List.of("", ""))) list(exchange);
        else if (path.equals(List.of("", EVENTS))) stream(exchange, null);
        else if (path.size() > 2 && path.get(1).equals("runs")) run(exchange, path);
        else missing(exchange);
    }

    private void list(HttpExchange exchange) throws IOException {
        var page = new ListPage(options.root(), runs.newestFirst());
        exchange.getResponseHeaders().set("Content-Security-Policy", page.policy());
        html(exchange, page.html());
    }

    private void run(HttpExchange exchange, List<String> path) throws IOException {
        ViewedRun run = runs.find(path.get(2));
        if (run == null) {
            missing(exchange);
            return;
        }
        if (path.size() == 3) {
            exchange.getResponseHeaders().set("Location", "/runs/" + encoded(run.name()) + "/");
            exchange.sendResponseHeaders(301, -1);
            return;
        }
        if (path.size() == 4 && path.get(3).equals(EVENTS)) {
            stream(exchange, run);
            return;
        }
        Path page;
        try {
            page = runs.page(run, path.size() == 4 && path.get(3).isEmpty());
        } catch (IOException | RuntimeException broken) {
            text(exchange, 500, "The page of " + run.name() + " could not be made: " + broken.getMessage());
            return;
        }
        String name = String.join("/", path.subList(3, path.size()));
        Path file = inside(page, name.isEmpty() ? "index.html" : name);
        if (file == null) missing(exchange);
        else FileAnswer.send(exchange, file, name.startsWith("attachments/"));
    }

    /** Null where there is none in {@code folder}. */
    private static @Nullable Path inside(Path folder, String name) {
        if (name.endsWith("/")) return null;
        try {
            Path file = folder.resolve(name).normalize();
            return file.startsWith(folder) && PlainFile.isThere(file) ? file : null;
        } catch (InvalidPathException none) {
            return null;
        }
    }

    /** @param run null for the list */
    private void stream(HttpExchange exchange, @Nullable ViewedRun run) throws IOException {
        if (!streams.tryAcquire()) {
            exchange.getResponseHeaders().set("Retry-After", "10");
            text(exchange, 503, "Too many look at once; close one of them.");
            return;
        }
        try {
            EventStream.send(exchange, runs, run);
        } finally {
            streams.release();
        }
    }

    private static void missing(HttpExchange exchange) throws IOException {
        text(exchange, 404, "There is no such run or file. Runs are listed at /");
    }

    private static void html(HttpExchange exchange, String html) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        send(exchange, 200, html.getBytes(StandardCharsets.UTF_8));
    }

    static void text(HttpExchange exchange, int status, String text) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "text/plain; charset=utf-8");
        send(exchange, status, (text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    private static void send(HttpExchange exchange, int status, byte[] body) throws IOException {
        if (exchange.getRequestMethod().equals("HEAD")) {
            exchange.getResponseHeaders().set("Content-Length", String.valueOf(body.length));
            exchange.sendResponseHeaders(status, -1);
            return;
        }
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
    }

    /** As a part of an address. */
    static String encoded(String part) {
        return URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
