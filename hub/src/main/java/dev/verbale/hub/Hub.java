package dev.verbale.hub;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import org.eclipse.jetty.server.HttpConfiguration;
import org.eclipse.jetty.server.HttpConnectionFactory;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.server.handler.GracefulHandler;
import org.eclipse.jetty.server.handler.MinimumDataRateHandler;
import org.eclipse.jetty.util.thread.QueuedThreadPool;
import org.jspecify.annotations.Nullable;

/**
 * A server that a team's runs are sent to, and shown by, until it is closed.
 *
 * <pre>{@code
 * try (Hub hub = Hub.start(options)) {
 *     System.out.println(hub.address());
 *     waitForSomebody();
 * }
 * }</pre>
 *
 * <p>All that it knows is in its database and its storage: it may be killed at any time, and another begun. Safe from any thread.
 *
 * @since 0.2.0
 */
public final class Hub implements AutoCloseable {

    private static final int MAX_THREADS = 256;
    private static final Duration STOPS_WITHIN = Duration.ofSeconds(5);
    private static final Duration IDLE = Duration.ofSeconds(60);

    /** Bytes a second: who is slower holds a thread for nothing. */
    private static final int SLOWEST = 200;

    private final HubDatabase database;
    private final Mirror mirror;
    private final Histories histories;
    private final Sweeper sweeper;
    private final HubSites sites;
    private final Server server;
    private final ServerConnector connector;
    private final @Nullable String firstToken;

    private Hub(
            HubDatabase database,
            Mirror mirror,
            Histories histories,
            Sweeper sweeper,
            HubSites sites,
            Server server,
            ServerConnector connector,
            @Nullable String firstToken) {
        this.database = database;
        this.mirror = mirror;
        this.histories = histories;
        this.sweeper = sweeper;
        this.sites = sites;
        this.server = server;
        this.connector = connector;
        this.firstToken = firstToken;
    }

    /**
     * Opens database and storage, and listens.
     *
     * @throws java.net.BindException where the address cannot be had
     * @throws IOException where the folder cannot be written, or the database not be used; the message says why
     */
    public static Hub start(HubOptions options) throws IOException {
        Path copies = options.folder().resolve("copies");
        Files.createDirectories(copies);
        HubDatabase database = HubDatabase.open(options);
        var objects = new ObjectFolder(options.objects());
        var uploads = new Uploads(database.jdbi(), objects);
        var histories = new Histories(database.jdbi(), options.folder().resolve("history"));
        var mirror = new Mirror(database.jdbi(), uploads, copies, histories::ended);
        Path pages = options.folder().resolve("pages");
        Folders.delete(pages); // of a hub that was killed
        var knowledge = new Knowledge(database.jdbi());
        var sites = new HubSites(mirror, options.pages(), knowledge, histories, Files.createDirectories(pages));
        var tokens = new Tokens(database.jdbi());
        String first = null;
        if (options.administer() != null) tokens.administer(options.administer());
        else if (tokens.isEmpty()) first = tokens.add(Role.ADMINISTER, null, "the first one");
        var people = new People(database.jdbi());
        var projects = new Projects(database.jdbi());
        var keeping = new Keeping(database.jdbi());
        var sweeper = new Sweeper(keeping, projects, objects, mirror);
        var handler = new HubHandler(
                new Entrance(tokens, people, options.proxy()),
                new TokenAnswers(tokens, people),
                projects,
                uploads,
                new TusAnswers(uploads, mirror),
                sites,
                new KnowledgeAnswers(knowledge, histories),
                new HistoryAnswers(histories),
                new KeepingAnswers(keeping),
                new HubMetrics(database.jdbi()));
        Server server = new Server(new QueuedThreadPool(MAX_THREADS));
        ServerConnector connector = connector(server, options);
        server.setHandler(new GracefulHandler(new MinimumDataRateHandler(handler, SLOWEST, 0)));
        server.setStopTimeout(STOPS_WITHIN.toMillis());
        var hub = new Hub(database, mirror, histories, sweeper, sites, server, connector, first);
        try {
            server.start();
        } catch (Exception refused) {
            hub.close();
            if (refused instanceof IOException io) throw io;
            throw new IOException(refused);
        }
        mirror.start();
        histories.start();
        sweeper.start();
        for (String project : projects.all()) sites.of(project); // they read what is there before somebody asks
        return hub;
    }

    private static ServerConnector connector(Server server, HubOptions options) {
        var http = new HttpConfiguration();
        http.setSendServerVersion(false);
        var connector = new ServerConnector(server, new HttpConnectionFactory(http));
        connector.setHost(options.address().getAddress().getHostAddress());
        connector.setPort(options.address().getPort());
        connector.setIdleTimeout(IDLE.toMillis());
        server.addConnector(connector);
        return connector;
    }

    /** Where it is, as this machine reaches it. */
    public URI address() {
        String host = connector.getHost();
        boolean isAny = host.equals("0.0.0.0") || host.matches("[0:]+");
        String name = isAny ? "localhost" : host.contains(":") ? "[" + host + "]" : host;
        return URI.create("http://" + name + ":" + connector.getLocalPort() + "/");
    }

    /** The token that it made since there was none; null otherwise. It is shown once. */
    public @Nullable String firstToken() {
        return firstToken;
    }

    /** Lets go what has to go by then, as it does by itself every hour. */
    void sweep(Instant by) throws IOException {
        sweeper.sweep(by, true);
    }

    /** Takes nothing more, ends what is under way within seconds, and is over. */
    @Override
    public void close() {
        sites.close(); // streams end first, or the server would wait for them
        try {
            server.stop();
        } catch (Exception broken) {
            // it is over, in whatever state
        }
        sweeper.close();
        mirror.close();
        histories.close();
        database.close();
    }
}
