package dev.verbale.benchmarks;

import ch.qos.logback.classic.Level;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.Scope;
import dev.verbale.http.VerbaleHttp;
import dev.verbale.httpclient5.VerbaleHttpClient5;
import dev.verbale.okhttp.VerbaleOkHttp;
import dev.verbale.restassured.VerbaleFilter;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import io.restassured.RestAssured;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Executors;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.Response;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.core5.http.io.entity.EntityUtils;

/**
 * What recording exchanges costs a request on the loopback address: a bare client and a watched one take turns, a hundred
 * requests each, with a response of 2 kB of JSON. Argument: the number of turns.
 */
public final class ExchangeOverhead {

    private static final int IN_A_TURN = 100;
    /** The turns are put together to so many, of which the median counts. */
    private static final int ROUNDS = 7;

    private static final byte[] ANSWER = answer(System.getProperty("secrets", "1"));

    /** Some 2 kB of JSON with so many fields of a secret name. */
    private static byte[] answer(String secrets) {
        int tokens = Integer.parseInt(secrets);
        var text = new StringBuilder("[");
        for (int plot = 0; plot < 44; plot++)
            text.append("{\"plot\":12,\"crop\":\"Herbs\",\"")
                    .append(plot < tokens ? "token" : "tools")
                    .append("\":\"s3cret\"},");
        return text.append("{\"plot\":7}]").toString().getBytes(StandardCharsets.UTF_8);
    }

    private ExchangeOverhead() {}

    private interface Asking {
        Object ask() throws Exception;
    }

    private record Pair(Asking bare, Asking watched) {}

    public static void main(String[] arguments) throws Exception {
        int turns = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 40;
        System.setProperty("verbale.root", Sinks.folder().toString());
        System.setProperty("verbale.summary-line", "false");
        ((ch.qos.logback.classic.Logger) org.slf4j.LoggerFactory.getLogger("ROOT")).setLevel(Level.OFF);
        HttpServer server = server();
        String address = "http://127.0.0.1:" + server.getAddress().getPort() + "/plots";
        System.out.printf(
                Locale.ROOT,
                "%d turns of %d requests, answers of %d bytes; microseconds for each request%n",
                turns,
                IN_A_TURN,
                ANSWER.length);
        alone();
        clients(address).forEach((name, pair) -> measure(name, pair, turns));
        server.stop(0);
        System.exit(0); // clients keep threads
    }

    /** The recorder's own part, without a client. */
    private static void alone() {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("alone", "alone").build());
        long begun = 0;
        for (int i = 0; i < 40_000; i++) {
            if (i == 20_000) begun = System.nanoTime();
            recorder.exchange("GET", "http://127.0.0.1:8080/plots")
                    .client("none")
                    .requestHeader("Accept", "*/*")
                    .status(200)
                    .responseHeader("Content-Type", "application/json")
                    .responseHeader("Date", "Wed, 25 Nov 2026 08:41:35 GMT")
                    .responseBody(ANSWER, "application/json")
                    .ended();
        }
        System.out.printf(Locale.ROOT, "recording alone %.1f%n", (System.nanoTime() - begun) / 1e3 / 20_000);
        recorder.endTest(test, TestEnd.passed());
    }

    private static HttpServer server() throws IOException {
        System.setProperty("sun.net.httpserver.nodelay", "true");
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newFixedThreadPool(2));
        server.createContext("/plots", exchange -> {
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, ANSWER.length);
            exchange.getResponseBody().write(ANSWER);
            exchange.close();
        });
        server.start();
        return server;
    }

    private static Map<String, Pair> clients(String address) {
        Map<String, Pair> clients = new LinkedHashMap<>();
        clients.put(
                "JDK",
                new Pair(
                        jdk(HttpClient.newHttpClient(), address),
                        jdk(VerbaleHttp.watch(HttpClient.newHttpClient()), address)));
        clients.put(
                "OkHttp",
                new Pair(
                        okHttp(new OkHttpClient(), address), okHttp(VerbaleOkHttp.watch(new OkHttpClient()), address)));
        clients.put(
                "Apache",
                new Pair(
                        apache(HttpClients.createDefault(), address),
                        apache(VerbaleHttpClient5.watch(HttpClients.custom()).build(), address)));
        clients.put(
                "REST Assured",
                new Pair(
                        () -> RestAssured.given().get(address).asByteArray(),
                        () -> RestAssured.given()
                                .filter(new VerbaleFilter())
                                .get(address)
                                .asByteArray()));
        return clients;
    }

    private static Asking jdk(HttpClient client, String address) {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address)).build();
        return () -> client.send(request, BodyHandlers.ofByteArray()).body();
    }

    private static Asking okHttp(OkHttpClient client, String address) {
        Request request = new Request.Builder().url(address).build();
        return () -> {
            try (Response response = client.newCall(request).execute()) {
                return response.body().bytes();
            }
        };
    }

    private static Asking apache(CloseableHttpClient client, String address) {
        return () -> client.execute(new HttpGet(address), response -> EntityUtils.toByteArray(response.getEntity()));
    }

    private static void measure(String name, Pair pair, int turns) {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test =
                recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build());
        try {
            for (int i = 0; i < 10; i++) { // until both are compiled
                turn(pair.bare(), new double[IN_A_TURN], 0);
                turn(pair.watched(), new double[IN_A_TURN], 0);
            }
            var bare = new double[turns * IN_A_TURN];
            var watched = new double[turns * IN_A_TURN];
            for (int turn = 0; turn < turns; turn++) {
                turn(pair.bare(), bare, turn * IN_A_TURN);
                turn(pair.watched(), watched, turn * IN_A_TURN);
            }
            var more = new double[ROUNDS];
            for (int round = 0; round < ROUNDS; round++)
                more[round] = medianOfRound(watched, round) - medianOfRound(bare, round);
            Arrays.sort(bare);
            Arrays.sort(watched);
            Figures.put("an exchange of " + name, Figures.median(more), Math.max(60, at(bare, 50) / 20), "µs");
            System.out.printf(
                    Locale.ROOT,
                    "%-13s bare p50 %6.0f p95 %6.0f   watched p50 %6.0f p95 %6.0f   more %s, %4.1f %%%n",
                    name,
                    at(bare, 50),
                    at(bare, 95),
                    at(watched, 50),
                    at(watched, 95),
                    Figures.withSpread(more),
                    100 * Figures.median(more) / at(bare, 50));
        } catch (Exception broken) {
            throw new IllegalStateException(name, broken);
        }
        recorder.endTest(test, TestEnd.passed());
    }

    private static void turn(Asking asking, double[] micros, int from) throws Exception {
        for (int i = 0; i < IN_A_TURN; i++) {
            long begun = System.nanoTime();
            Object answer = asking.ask();
            micros[from + i] = (System.nanoTime() - begun) / 1e3;
            if (!(answer instanceof byte[] bytes) || bytes.length != ANSWER.length)
                throw new IllegalStateException("another answer came");
        }
    }

    private static double medianOfRound(double[] all, int round) {
        int length = all.length / ROUNDS;
        return Figures.median(Arrays.copyOfRange(all, round * length, (round + 1) * length));
    }

    private static double at(double[] sorted, int hundredths) {
        return sorted[sorted.length * hundredths / 100];
    }
}
