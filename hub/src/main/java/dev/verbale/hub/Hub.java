package dev.verbale.hub;

import dev.verbale.folder.FolderTree;
import dev.verbale.history.HistoryFolder;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import java.util.TreeMap;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.server.handler.GracefulHandler;
import org.eclipse.jetty.server.handler.MinimumDataRateHandler;
import org.eclipse.jetty.util.ssl.KeyStoreScanner;
import org.eclipse.jetty.util.thread.QueuedThreadPool;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.JdbiException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A server that a team's runs are sent to, and shown by, until it is closed.
 *
 * <pre>{@code
 * try (Hub hub = Hub.start(HubOptions.of(new InetSocketAddress("127.0.0.1", 8460), folder))) {
 *     System.out.println(hub.address());
 *     waitForSomebody();
 * }
 * }</pre>
 *
 * <p>All that it knows is in its database and its storage: it may be killed at any time, and another begun. It logs by SLF4J. Safe from
 * any thread.
 *
 * @since 0.2.0
 */
public final class Hub implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Hub.class);

    private static final int MAX_THREADS = 256;
    private static final Duration STOPS_WITHIN = Duration.ofSeconds(5);

    /** Bytes a second: who is slower holds a thread for nothing. */
    private static final int SLOWEST = 200;

    /** What was opened, the last one first. */
    private final Deque<AutoCloseable> open = new ArrayDeque<>();

    private final HubOptions options;
    private final Server server = new Server(new QueuedThreadPool(MAX_THREADS));
    private final ServerConnector connector;
    private @Nullable Sweeper sweeper;
    private @Nullable String firstToken;
    private @Nullable Projects projects;
    private @Nullable Histories histories;

    private Hub(HubOptions options) throws IOException {
        this.options = options;
        connector = HubConnector.of(server, options);
    }

    /**
     * Opens database and storage, and listens.
     *
     * @throws java.net.BindException where the address cannot be had
     * @throws IOException where the folder cannot be written, the database or the storage not be used, or the certificate not be read; the
     *     message says why
     */
    public static Hub start(HubOptions options) throws IOException {
        var hub = new Hub(options);
        try {
            hub.begin();
            return hub;
        } catch (IOException | RuntimeException refused) {
            hub.close();
            throw refused;
        }
    }

    private void begin() throws IOException {
        Path folder = options.folder();
        Path copies = Files.createDirectories(folder.resolve("copies"));
        Path pages = folder.resolve("pages");
        FolderTree.delete(pages); // of a hub that was killed
        Jdbi jdbi = opened(HubDatabase.open(options)).jdbi();
        var objects = opened(new StoredObjects(jdbi, ObjectStorage.open(options)));
        var uploads = opened(new Uploads(jdbi, objects));
        var histories = opened(new Histories(jdbi, folder.resolve("history")));
        this.histories = histories;
        var mirror = opened(new Mirror(jdbi, uploads, copies, histories::ended));
        var knowledge = new Knowledge(jdbi);
        var keeping = new Keeping(jdbi);
        var projects = new Projects(jdbi);
        this.projects = projects;
        sweeper = opened(new Sweeper(keeping, projects, objects, mirror, new SilentParts(jdbi, uploads)));
        opened(this::stop);
        // Streams end first, or the server would wait for them.
        var streams = opened(new HubStreams());
        var sites = opened(
                new HubSites(mirror, options.pages(), knowledge, histories, streams, Files.createDirectories(pages)));
        var tokens = new Tokens(jdbi);
        if (options.administer() != null) tokens.administer(options.administer());
        else if (tokens.isEmpty()) firstToken = tokens.add(Role.ADMINISTER, null, "the first one");
        var people = new People(jdbi);
        var sessions = new Sessions(jdbi, tokens, people);
        var known = new KnowledgeAnswers(knowledge, histories);
        var remembered = new HistoryAnswers(histories);
        var metrics = new HubMetrics(jdbi, streams);
        HubOptions.OpenId openId = options.openId();
        var handler = new HubHandler(
                new Entrance(tokens, people, sessions, options),
                openId == null
                        ? null
                        : new OpenIdEntrance(new OpenIdProvider(openId), people, sessions, this::publicAddress),
                projects,
                new HubApi(
                        projects,
                        new TokenAnswers(tokens, people),
                        new TusAnswers(uploads, mirror),
                        known,
                        remembered,
                        new KeepingAnswers(keeping)),
                new PageAnswers(projects, sites, known, remembered, metrics, streams),
                metrics,
                streams);
        server.setHandler(new GracefulHandler(new MinimumDataRateHandler(handler, SLOWEST, 0)));
        server.setStopTimeout(STOPS_WITHIN.toMillis());
        listen();
        mirror.start();
        histories.start();
        sweeper.start();
        for (String project : projects.all()) sites.of(project); // they read what is there before somebody asks
        LOG.atInfo().addKeyValue("address", address()).log("The hub is there.");
    }

    private <T extends AutoCloseable> T opened(T part) {
        open.push(part);
        return part;
    }

    private void listen() throws IOException {
        try {
            server.start();
        } catch (IOException | RuntimeException refused) {
            throw refused;
        } catch (Exception refused) {
            throw new IOException(refused);
        }
    }

    private void stop() throws Exception {
        server.stop();
    }

    /** Where it is, as this machine reaches it. */
    public URI address() {
        String host = connector.getHost();
        boolean isAny = host.equals("0.0.0.0") || host.matches("[0:]+");
        String name = isAny ? "localhost" : host.contains(":") ? "[" + host + "]" : host;
        String scheme = options.certificate() == null ? "http" : "https";
        return URI.create(scheme + "://" + name + ":" + connector.getLocalPort() + "/");
    }

    private URI publicAddress() {
        return options.publicAddress() == null ? address() : options.publicAddress();
    }

    /** The token that it made since there was none; null otherwise. It is shown once. */
    public @Nullable String firstToken() {
        return firstToken;
    }

    /**
     * What is remembered of a project's runs.
     *
     * @param folder of this hub's own, to be read
     * @param version another number after each run
     */
    public record Remembered(HistoryFolder folder, long version) {}

    /**
     * What is remembered of each project's runs, by the project. A run is there some seconds after it was over.
     *
     * @throws IOException where the database does not answer
     */
    public Map<String, Remembered> histories() throws IOException {
        Projects known = projects;
        Histories remembered = histories;
        Map<String, Remembered> all = new TreeMap<>();
        if (known == null || remembered == null) return all;
        try {
            for (String project : known.all())
                all.put(project, new Remembered(remembered.of(project), remembered.version(project)));
        } catch (JdbiException away) {
            throw new IOException(away);
        }
        return all;
    }

    /** Lets go what has to go by then, as it does by itself every hour. */
    void sweep(Instant by) throws IOException {
        if (sweeper != null) sweeper.sweep(by, true);
    }

    /** Whether the certificate is another one now, as it looks by itself every minute. */
    void lookAtCertificate() {
        KeyStoreScanner scanner = server.getBean(KeyStoreScanner.class);
        if (scanner != null) scanner.scan(STOPS_WITHIN.toMillis());
    }

    /** Takes nothing more, ends what is under way within seconds, and is over. */
    @Override
    public void close() {
        while (!open.isEmpty()) {
            try {
                open.pop().close();
            } catch (Exception broken) {
                LOG.warn("A part of the hub did not end as it should.", broken);
            }
        }
    }
}
