package dev.verbale.hub;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** A hub with a token for everything, and real runs for it. */
final class HubFixture implements AutoCloseable {

    static final String ADMINISTER = "a-token-that-may-do-everything";

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    final HttpClient client =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(20)).build();

    private final Path folder;
    private final HubOptions.Database database;
    private final UnaryOperator<HubOptions> more;
    private int port;
    private Hub hub;

    /** @param database null for the embedded one */
    HubFixture(Path folder, HubOptions.Database database) throws IOException {
        this(folder, database, UnaryOperator.identity());
    }

    /** @param more what is other than usual */
    HubFixture(Path folder, HubOptions.Database database, UnaryOperator<HubOptions> more) throws IOException {
        this.folder = folder;
        this.database = database;
        this.more = more;
        begin();
    }

    void begin() throws IOException {
        hub = Hub.start(options("hub", port));
        port = hub.address().getPort();
    }

    /** Another one beside it, with the same database and storage. */
    Hub another() throws IOException {
        return Hub.start(options("another", 0));
    }

    private HubOptions options(String own, int at) {
        HubOptions options = options(folder.resolve(own), at)
                .withStorage(new HubOptions.Storage.Folder(folder.resolve("objects")))
                .withDatabase(database)
                .withProxy(new HubOptions.Proxy(Set.of(InetAddress.getLoopbackAddress()), "X-Forwarded-User"));
        return more.apply(options);
    }

    /** Of a hub of this machine, with {@link #ADMINISTER}. */
    static HubOptions options(Path folder, int port) {
        return HubOptions.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), folder)
                .withAdminister(ADMINISTER);
    }

    void sweep(Instant by) throws IOException {
        hub.sweep(by);
    }

    URI address() {
        return hub.address();
    }

    Path copyOf(String project, String run) {
        return folder.resolve("hub/copies").resolve(project).resolve(run);
    }

    /** How many stored files hold {@code text}. */
    long objectsWith(String text) throws IOException {
        try (Stream<Path> files = Files.walk(folder.resolve("objects"))) {
            long found = 0;
            for (Path file : files.filter(Files::isRegularFile).toList())
                if (Files.readString(file).contains(text)) found++;
            return found;
        }
    }

    String token(String project, Role role, String label) throws Exception {
        HttpResponse<String> made = api(
                ADMINISTER,
                "POST",
                "api/v1/tokens?project=" + project + "&role=" + role.word() + "&label=" + label.replace(" ", "%20"),
                "");
        if (made.statusCode() != 201) throw new AssertionError(made.statusCode() + " " + made.body());
        return made.body().strip();
    }

    HttpResponse<String> api(String token, String method, String path, String body, String... headers)
            throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(address().resolve(path))
                .timeout(Duration.ofSeconds(30))
                .method(method, BodyPublishers.ofString(body));
        if (token != null) request.header("Authorization", "Bearer " + token);
        for (int i = 0; i < headers.length; i += 2) request.header(headers[i], headers[i + 1]);
        HttpResponse<String> answer;
        try {
            answer = client.send(request.build(), BodyHandlers.ofString());
        } catch (IOException closed) { // a connection that the hub ended as it was used again
            answer = client.send(request.build(), BodyHandlers.ofString());
        }
        DescribedApi.hold(answer);
        return answer;
    }

    HttpResponse<String> get(String token, String path) throws Exception {
        return api(token, "GET", path, "");
    }

    SendOptions sending(String token, String project, String run) {
        return new SendOptions(address(), project, run, token, PATIENCE);
    }

    RunSender sender(RunFolder run, String token, String project, String name) {
        return new RunSender(run, sending(token, project, name));
    }

    /** A recorder whose run is below {@code root}. */
    static AdapterRecorder recorder(Path root) {
        return AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
    }

    static void test(AdapterRecorder recorder, String name, boolean passes) {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("sample.RotaTest." + name + "()", name)
                        .className("sample.RotaTest")
                        .build());
        recorder.log("watered " + name);
        recorder.attach(
                "rota <b>.csv",
                (name + "\n").repeat(2_000).getBytes(java.nio.charset.StandardCharsets.UTF_8),
                MediaType.CSV);
        recorder.endTest(test, passes ? TestEnd.passed() : TestEnd.threw(new AssertionError("weeds in " + name)));
    }

    /** As a JVM closes its journal. */
    static void end(AdapterRecorder recorder) {
        try {
            Files.writeString(
                    new RunFolder(recorder.folder()).journalFiles().get(0),
                    "{\"event\":\"journal-ended\",\"at\":" + recorder.now() + ",\"missing\":0}\n",
                    java.nio.file.StandardOpenOption.APPEND);
        } catch (IOException failed) {
            throw new java.io.UncheckedIOException(failed);
        }
    }

    interface Question {
        boolean isSo() throws Exception;
    }

    /** Waits for what another thread does. */
    static void until(Question question) throws Exception {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (!question.isSo()) {
            if (System.nanoTime() > end) throw new AssertionError("not in time");
            LockSupport.parkNanos(20_000_000);
        }
    }

    /** The contents of a folder's files by their paths, without what no part of a run is. */
    static Map<String, String> contents(Path folder) throws IOException {
        Map<String, String> contents = new TreeMap<>();
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                String name = folder.relativize(file).toString();
                if (!name.equals("writers.lock")) contents.put(name, Tokens.hash(Files.readString(file)));
            }
        }
        return contents;
    }

    @Override
    public void close() {
        hub.close();
    }
}
