package dev.verbale.http.difficult;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.hostile.ByDay;
import dev.verbale.http.Garden;
import dev.verbale.http.difficult.Client.Answer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * A watched client does what the bare one does, to the test and to the server, and what is recorded is what the server saw.
 * Each client's tests send in its client's way.
 */
public abstract class WatchedAsBareContract {

    @RegisterExtension
    protected static final Garden GARDEN = Garden.open();

    private static final int LONG = 100_000;
    private static final int AT_ONCE = 200;
    private static final int MAX_WAYS = 8;

    /** How long it waits for the next byte. */
    protected Duration patience = Duration.ZERO;

    /** How long it tries to connect. */
    protected Duration connecting = Duration.ZERO;

    /** One for each client: some keep connections for the whole JVM. */
    private DifficultServer server;

    private static SelfSigned selfSigned;

    /**
     * One with a read timeout of {@link #patience}, a connect timeout of {@link #connecting}, redirects, cookies and the credentials of {@code ada} with
     * {@code watering} where it has such, and with interceptors of the suite's own before and behind ours.
     */
    protected abstract Client client(boolean watched) throws Exception;

    /** Lower-case names of headers that are sent and that the adapter cannot see; the guide lists them. */
    protected abstract Set<String> unseen();

    /** Whether the client underneath follows redirects unseen, and answers challenges. */
    protected boolean seesEachHop() {
        return true;
    }

    /** Whether it gives all that came of a response before it says that this breaks off, each time. */
    protected boolean givesWhatCame() {
        return true;
    }

    /** {@code thrown}, without what it says now so and now so. */
    protected String withoutRandomness(String thrown) {
        return thrown;
    }

    /** Whether a connection is back in its pool before the test has the response, each time. */
    protected boolean isReadyOnceItAnswered() {
        return true;
    }

    /** Whether it waits until it has lost its patience, which is short then. */
    protected boolean waitsInVain(Scenario scenario) {
        return scenario.isNeverAnswered();
    }

    /** Whether it tells of a request that it sends once more when its connection broke. */
    protected boolean reportsRepeats() {
        return true;
    }

    @BeforeAll
    static void start() throws Exception {
        selfSigned = new SelfSigned();
    }

    @AfterAll
    static void stop() throws Exception {
        selfSigned.close();
    }

    static Stream<Scenario> scenarios() {
        return ByDay.everyFourth(Scenario.all());
    }

    @ParameterizedTest
    @MethodSource("scenarios")
    void it_does_what_the_bare_one_does(Scenario scenario) throws Exception {
        Seen watched = seen(scenario, true);
        String address = server.address("");
        Ways bare = whatTheBareOneDoes(scenario, watched);
        if (!bare.wires()
                .contains(watched.wire())) { // a way that either takes once in a hundred times, as a server closes late
            watched = seen(scenario, true);
            address = server.address("");
            bare = whatTheBareOneDoes(scenario, watched);
        }

        assertThat(watched.wire()).isIn(bare.wires());
        assertThat(bare.answers()).containsAll(watched.answers());
        if (!scenario.address().startsWith("http")) recorded(watched.received(), address);
    }

    /** What the bare one was seen to do. */
    private record Ways(Set<String> answers, Set<String> wires) {}

    /** It may do now this and now that, as the broken answers come in time or late. */
    private Ways whatTheBareOneDoes(Scenario scenario, Seen watched) throws Exception {
        var ways = new Ways(new LinkedHashSet<>(), new LinkedHashSet<>());
        for (int i = 0; i < MAX_WAYS; i++) {
            Seen bare = seen(scenario, false);
            ways.answers().addAll(bare.answers());
            ways.wires().add(bare.wire());
            if (ways.wires().contains(watched.wire()) && ways.answers().containsAll(watched.answers())) break;
        }
        return ways;
    }

    @Test
    void two_hundred_at_once_are_served_and_recorded() throws Exception {
        patience = Duration.ofSeconds(30);
        connecting = patience;
        server = new DifficultServer();
        ExecutorService many = Executors.newFixedThreadPool(AT_ONCE);
        try (Client client = client(true)) {
            List<Callable<String>> asking = new ArrayList<>();
            for (int i = 0; i < AT_ONCE; i++) {
                var scenario = new Scenario(
                        "POST",
                        "/echo",
                        java.util.Map.of("Content-Type", "text/plain"),
                        ("bed " + i).getBytes(StandardCharsets.UTF_8),
                        0,
                        Scenario.Reading.WHOLE);
                asking.add(dev.verbale.Verbale.carry(() -> sent(client, scenario)));
            }
            List<String> answers = new ArrayList<>();
            for (Future<String> one : many.invokeAll(asking)) answers.add(one.get());
            for (int i = 0; i < AT_ONCE; i++)
                assertThat(answers.get(i)).startsWith("200 ").endsWith("bed " + i);
        } finally {
            many.shutdownNow();
            server.close();
        }
        assertThat(GARDEN.exchanges())
                .hasSize(AT_ONCE)
                .allMatch(one -> one.status() == 200)
                .allMatch(one ->
                        one.request().body().text().equals(one.response().body().text()));
    }

    /** What a scenario did to the test and to the server. */
    private record Seen(List<String> answers, List<Received> received, int connections) {
        String wire() {
            var seen = new StringBuilder();
            for (Received one : received) {
                seen.append("\n> ").append(one.line()).append('\n');
                one.headers()
                        .forEach(header ->
                                seen.append("> ").append(normal(header)).append('\n'));
                seen.append("> ").append(normal(one.body())).append('\n');
            }
            return seen + "\nconnections: " + connections;
        }
    }

    /** Twice, so that a connection can be used again, or not. */
    private Seen seen(Scenario scenario, boolean watched) throws Exception {
        patience = waitsInVain(scenario) ? Duration.ofMillis(300) : Duration.ofSeconds(30);
        connecting = Duration.ofSeconds(30);
        server = new DifficultServer();
        List<String> answers = new ArrayList<>();
        try (DifficultServer serving = server;
                Client client = client(watched)) {
            answers.add(sent(client, scenario));
            if (scenario.streamed() == 0) answers.add(sent(client, scenario));
        }
        List<Received> received = scenario.address().startsWith("http") ? List.of() : withoutTrace(server.received());
        boolean isRandom = !isReadyOnceItAnswered()
                || (!givesWhatCame()
                        && Set.of(Scenario.Reading.LEFT, Scenario.Reading.UNREAD)
                                .contains(scenario.reading())); // whether the rest has come by then
        return new Seen(answers, received, isRandom ? 0 : server.connections());
    }

    private static List<Received> withoutTrace(List<Received> received) {
        return received.stream()
                .map(one -> new Received(
                        one.line(),
                        one.headers().stream()
                                .filter(header ->
                                        !header.toLowerCase(Locale.ROOT).startsWith("traceparent:"))
                                .toList(),
                        one.body()))
                .toList();
    }

    private String sent(Client client, Scenario scenario) {
        try {
            Answer answer = client.send(scenario, url(scenario.address()), new Reading(scenario));
            String read = answer.read();
            if (!givesWhatCame()) read = read.replaceFirst(".* and then threw", "something and then threw");
            return withoutRace(scenario, answer.status() + " " + answer.type() + " " + read);
        } catch (Throwable thrown) {
            return withoutRace(scenario, withoutRandomness(described(thrown)));
        }
    }

    /** A socket and whoever watches it lose their patience in the same millisecond: which of them says so is chance. */
    private String withoutRace(Scenario scenario, String answer) {
        return waitsInVain(scenario) ? answer.replaceFirst("(?s)(SocketTimeoutException).*", "$1") : answer;
    }

    private String url(String address) {
        if (address.equals(Scenario.SELF_SIGNED)) return "https://127.0.0.1:" + selfSigned.port() + "/";
        if (address.equals(Scenario.NOT_TLS)) return "https://127.0.0.1:" + server.port() + "/";
        return address.startsWith("http") ? address : server.address(address);
    }

    private static String described(Throwable thrown) {
        var seen = new StringBuilder("threw");
        for (Throwable one = thrown; one != null; one = one.getCause())
            seen.append(' ')
                    .append(one.getClass().getName())
                    .append(": ")
                    .append(normal(String.valueOf(one.getMessage())));
        return seen.toString();
    }

    /** Without what the client itself makes up. */
    private static String normal(String text) {
        return text.replaceAll("127\\.0\\.0\\.1:\\d+", "orto")
                .replaceAll("@[0-9a-f]{4,}", "@")
                .replaceAll("boundary=\\S+", "boundary=")
                .replaceAll("(cnonce|response)=\"[^\"]*\"", "$1")
                .replace(": Name or service not known", ""); // said at the first look, and then remembered without
    }

    /** Each request that the server saw is an exchange, in that order, and no header was made up. */
    private void recorded(List<Received> sent, String address) throws IOException {
        List<ExchangeMade> made = GARDEN.exchanges().stream()
                .filter(one -> one.request().url().startsWith(address))
                .toList();
        if (!seesEachHop()) return;
        List<Received> received = new ArrayList<>(sent);
        for (int i = 1; i < received.size() && !reportsRepeats() && received.size() > made.size(); i++)
            if (received.get(i).equals(received.get(i - 1))) received.remove(i--);
        assertThat(made)
                .extracting(one -> one.request().method() + " "
                        + one.request().url().replace(address, "").replaceFirst("#.*", ""))
                .containsExactlyElementsOf(received.stream()
                        .map(one -> one.method() + " " + one.path().replace(address, ""))
                        .toList());
        for (int i = 0; i < received.size(); i++) sameHeaders(made.get(i), received.get(i));
    }

    private void sameHeaders(ExchangeMade made, Received received) {
        List<String> seen = new ArrayList<>();
        for (Header one : made.request().headers()) if (isCompared(one.name())) seen.add(line(one.name(), one.value()));
        List<String> sent = new ArrayList<>();
        for (String one : received.headers()) {
            String name = one.substring(0, one.indexOf(':'));
            if (isCompared(name) && !unseen().contains(name.toLowerCase(Locale.ROOT)))
                sent.add(line(name, one.substring(one.indexOf(':') + 1)));
        }
        seen.removeIf(one -> unseen().contains(one.replaceFirst(":.*", ""))
                && received.headers().stream()
                        .anyMatch(header -> header.toLowerCase(Locale.ROOT).startsWith(one.replaceFirst(":.*", ":"))));
        assertThat(seen).as(received.line()).containsExactlyInAnyOrderElementsOf(sent);
    }

    private static boolean isCompared(String name) {
        return !name.equalsIgnoreCase("traceparent");
    }

    private static String line(String name, String value) {
        String low = name.toLowerCase(Locale.ROOT);
        boolean masked = low.equals("authorization") || low.equals("cookie");
        return low + ": " + (masked ? "masked" : value.strip());
    }

    private final class Reading implements Client.Reader {
        private final Scenario scenario;

        Reading(Scenario scenario) {
            this.scenario = scenario;
        }

        @Override
        public String read(InputStream body) throws IOException {
            if (body == null) return "no body";
            return switch (scenario.reading()) {
                case UNREAD -> "unread";
                case LEFT -> {
                    try (body) {
                        yield new String(body.readNBytes(10), StandardCharsets.ISO_8859_1);
                    }
                }
                case WHOLE -> summed(body);
                case ONCE_IT_IS_THERE -> {
                    server.partWasRead();
                    yield summed(body);
                }
                case AS_IT_COMES -> {
                    String first = new String(body.readNBytes(8), StandardCharsets.ISO_8859_1);
                    server.partWasRead();
                    yield first + summed(body);
                }
            };
        }

        @Override
        public void readsWhole() {
            for (int i = 0; i < MAX_WAYS; i++) server.partWasRead(); // it may be sent again
        }

        @Override
        public String whole(byte[] body) {
            try {
                return body == null ? "no body" : summed(new ByteArrayInputStream(body));
            } catch (IOException never) {
                throw new AssertionError(never);
            }
        }

        /** Without keeping what is long. */
        private String summed(InputStream body) throws IOException {
            var sum = new CRC32();
            var kept = new StringBuilder();
            long length = 0;
            var piece = new byte[8_192];
            try {
                for (int read = body.read(piece); read >= 0; read = body.read(piece)) {
                    sum.update(piece, 0, read);
                    length += read;
                    if (length <= LONG) kept.append(new String(piece, 0, read, StandardCharsets.ISO_8859_1));
                }
            } catch (IOException | RuntimeException broken) {
                return kept + " and then " + described(broken);
            }
            return length > LONG ? length + " bytes, sum " + sum.getValue() : kept.toString();
        }
    }
}
