package dev.verbale.viewer;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * A server that shows a folder of runs, until it is closed. Its threads keep no JVM alive.
 *
 * <pre>{@code
 * try (Viewer viewer = Viewer.start(options)) {
 *     System.out.println(viewer.address());
 *     waitForSomebody();
 * }
 * }</pre>
 *
 * <p>Safe from any thread.
 *
 * @since 0.2.0
 */
public final class Viewer implements AutoCloseable {

    /** Each stream of events holds one. */
    private static final int MAX_THREADS = 128;

    private static final int BACKLOG = 100;

    private final HttpServer server;
    private final ExecutorService threads;
    private final RunsSite runs;
    private final Path pages;
    private final URI address;

    private Viewer(HttpServer server, ExecutorService threads, RunsSite runs, Path pages, URI address) {
        this.server = server;
        this.threads = threads;
        this.runs = runs;
        this.pages = pages;
        this.address = address;
    }

    /**
     * Listens, and begins to read the runs.
     *
     * @throws java.net.BindException where the address cannot be had; the port may be in use
     * @throws IOException where it cannot listen, or has no room for pages
     */
    public static Viewer start(ViewerOptions options) throws IOException {
        HttpServer server = HttpServer.create(options.address(), BACKLOG);
        Path pages;
        try {
            pages = Files.createTempDirectory("verbale-viewer");
        } catch (IOException noRoom) {
            server.stop(0);
            throw noRoom;
        }
        var runs = new RunsSite(options.root().toString(), options.root(), options.pages(), pages);
        ExecutorService threads = threads();
        int port = server.getAddress().getPort();
        server.setExecutor(threads);
        server.createContext("/", new Guarded(options, port, runs));
        server.start();
        return new Viewer(server, threads, runs, pages, address(options, server.getAddress()));
    }

    private static ExecutorService threads() {
        var number = new AtomicInteger();
        return new ThreadPoolExecutor(0, MAX_THREADS, 10, TimeUnit.SECONDS, new SynchronousQueue<>(), work -> {
            var thread = new Thread(work, "viewer-" + number.incrementAndGet());
            thread.setDaemon(true);
            return thread;
        });
    }

    private static URI address(ViewerOptions options, InetSocketAddress bound) {
        String host = options.address().getHostString();
        if (bound.getAddress().isAnyLocalAddress()) host = "localhost";
        else if (host.contains(":")) host = "[" + host + "]";
        String token = options.token() == null ? "" : "?" + Guarded.TOKEN + "=" + RunsSite.encoded(options.token());
        return URI.create("http://" + host + ":" + bound.getPort() + "/" + token);
    }

    /** Where the list of runs is, with the token that opens it. */
    public URI address() {
        return address;
    }

    /** Ends it: what was asked for is answered no more, and the pages that it made are gone. */
    @Override
    public void close() {
        runs.close();
        server.stop(0);
        threads.shutdownNow();
        MadePages.delete(pages);
    }
}
