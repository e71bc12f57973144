package dev.verbale.viewer;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The list of the runs in a folder, each run's page, and streams of what is new in them: what a browser is shown, whichever server it asks.
 * Who may ask is the server's to decide. Safe from any thread.
 *
 * @since 0.2.0
 */
public final class RunsSite implements AutoCloseable {

    private static final String EVENTS = "events";

    private final String title;
    private final ViewedRuns runs;

    /**
     * Begins to read the runs.
     *
     * @param title of the list, such as where the runs are
     * @param root the folder that holds them; need not be there yet
     * @param pages what a page is made of beside its run
     * @param folder of this site's own, for pages that it makes
     */
    public RunsSite(String title, Path root, ViewerOptions.Pages pages, Path folder) {
        this.title = title;
        this.runs = new ViewedRuns(new ResultsRoot(root), new MadePages(pages, folder));
        runs.start();
    }

    /** What every answer of a server says that has one, whatever is in it: that it runs, and is shown, nowhere else. */
    public static void guard(WebExchange exchange) {
        exchange.set("X-Content-Type-Options", "nosniff");
        exchange.set("Referrer-Policy", "no-referrer");
        exchange.set("Cross-Origin-Resource-Policy", "same-origin");
        exchange.set("Cross-Origin-Opener-Policy", "same-origin");
        exchange.set("Cache-Control", "no-store");
        exchange.set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'");
    }

    /**
     * Its newest run, in HTML: the cells of a table's row, as its list has them.
     *
     * @param site the address of the list from where this is to stand, such as {@code projects/orto/}
     * @return empty where there is no run
     */
    public String newest(String site) throws IOException {
        List<ViewedRun> newest = runs.newestFirst();
        return newest.isEmpty() ? "" : ListPage.cells(newest.get(0), site);
    }

    /** A moment in HTML, as its list has them: in the time of this machine. */
    public static String moment(Instant at) {
        return ListPage.moment(at);
    }

    /** The style of its list, in CSS. */
    public static String stylesheet() throws IOException {
        return ListPage.stylesheet();
    }

    /** Answers a request. Besides its list at {@code /}, it has {@code /runs/NAME/} and {@code /events}. */
    public void answer(WebExchange exchange) throws IOException {
        List<String> path = List.of(exchange.path().split("/", -1));
        try {
            if (path.equals(List.of("", ""))) list(exchange);
            else if (path.equals(List.of("", EVENTS))) stream(exchange, null);
            else if (path.size() > 2 && path.get(1).equals("runs")) run(exchange, path);
            else missing(exchange);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    private void list(WebExchange exchange) throws IOException {
        var page = new ListPage(title, runs.newestFirst());
        exchange.set("Content-Security-Policy", page.policy());
        Answer.html(exchange, page.html());
    }

    private void run(WebExchange exchange, List<String> path) throws IOException {
        ViewedRun run = runs.find(path.get(2));
        if (run == null) {
            missing(exchange);
            return;
        }
        if (path.size() == 3) {
            exchange.set("Location", encoded(run.name()) + "/"); // relative: where the site is, its server knows
            exchange.answer(301);
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
            Answer.text(exchange, 500, "The page of " + run.name() + " could not be made: " + broken.getMessage());
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
    private void stream(WebExchange exchange, @Nullable ViewedRun run) throws IOException {
        exchange.set("Content-Type", EventFeed.TYPE);
        if (exchange.method().equals("HEAD")) exchange.answer(200);
        else exchange.stream(new EventFeed(runs, run));
    }

    /** Makes the page of the newest run, where it is over and was read, before somebody asks for it. It takes as long as that does. */
    public void makeAhead() throws IOException {
        List<ViewedRun> newest = runs.newestFirst();
        if (newest.isEmpty() || newest.get(0).isNew() || newest.get(0).isGoing()) return;
        runs.page(newest.get(0), true);
    }

    /** Has {@code changed} run, on a thread of this site's own, whenever a feed may have something new; it is to be quick. */
    public void onChange(Runnable changed) {
        runs.onChange(changed);
    }

    private static void missing(WebExchange exchange) throws IOException {
        Answer.text(exchange, 404, "There is no such run or file. The list of runs has all there are.");
    }

    /** As a part of an address, in UTF-8 with percent signs (RFC 3986). */
    public static String encoded(String part) {
        return URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** Ends its streams, and reads no more. */
    @Override
    public void close() {
        runs.close();
    }
}
