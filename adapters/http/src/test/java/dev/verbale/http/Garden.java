package dev.verbale.http;

import static java.nio.charset.StandardCharsets.UTF_8;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.Scope;
import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/** For tests of adapters: a server with answers of all kinds, a recorded test for each test, and what it recorded. */
public final class Garden implements BeforeEachCallback, BeforeAllCallback {

    /** In what is answered and asked; it must be nowhere in the journal. */
    public static final String SECRET = "t0ps3cret-of-Ada";

    private final HttpServer server;
    private final AdapterRecorder recorder = AdapterRecorder.current();
    private final Map<String, String> lastTrace = new ConcurrentHashMap<>();
    private String key = "";
    private Scope test = recorder.run();

    private Garden() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        on("/json", e -> {
            e.getResponseHeaders().add("Set-Cookie", "sid=" + SECRET);
            answer(e, 201, "application/json", ("{\"seed\":\"Basil\",\"token\":\"" + SECRET + "\"}").getBytes(UTF_8));
        });
        on("/echo", e -> answer(e, 200, "text/plain", e.getRequestBody().readAllBytes()));
        on("/moved", e -> {
            e.getResponseHeaders().add("Location", "/json");
            e.sendResponseHeaders(302, -1);
        });
        on("/packed", e -> {
            var packed = new ByteArrayOutputStream();
            try (var gzip = new GZIPOutputStream(packed)) {
                gzip.write("Basil ".repeat(1_000).getBytes(UTF_8));
            }
            e.getResponseHeaders().add("Content-Encoding", "gzip");
            answer(e, 200, "text/plain", packed.toByteArray());
        });
        on("/image", e -> answer(e, 200, "image/png", new byte[] {(byte) 0x89, 'P', 'N', 'G'}));
        on("/cut", e -> {
            e.getResponseHeaders().add("Content-Type", "text/plain");
            e.sendResponseHeaders(200, 1_000);
            e.getResponseBody().write("only this".getBytes(UTF_8));
            e.getResponseBody().flush();
        });
        on("/long", e -> {
            e.getResponseHeaders().add("Content-Type", "text/plain");
            e.sendResponseHeaders(200, 0);
            for (int i = 0; i < 300; i++)
                e.getResponseBody().write("x".repeat(10_000).getBytes(UTF_8));
        });
        server.start();
    }

    /** One that is closed after the last test. */
    public static Garden open() {
        try {
            return new Garden();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private interface Answering {
        void answer(HttpExchange exchange) throws IOException;
    }

    private void on(String path, Answering answering) {
        server.createContext(path, exchange -> {
            String trace = exchange.getRequestHeaders().getFirst("traceparent");
            if (trace != null) lastTrace.put(path, trace);
            answering.answer(exchange);
            exchange.close();
        });
    }

    private static void answer(HttpExchange exchange, int status, String type, byte[] body) throws IOException {
        exchange.getRequestBody().readAllBytes();
        exchange.getResponseHeaders().add("Content-Type", type);
        exchange.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
        if (body.length > 0) exchange.getResponseBody().write(body);
    }

    @Override
    public void beforeEach(ExtensionContext context) {
        key = context.getUniqueId(); // also of one of many with the same method
        test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of(key, key)
                        .className("sample.Api")
                        .methodName(key)
                        .build());
    }

    /** It serves all test classes of the JVM, and closes with the last. */
    @Override
    public void beforeAll(ExtensionContext context) {
        AutoCloseable closing = () -> server.stop(0);
        context.getRoot().getStore(ExtensionContext.Namespace.GLOBAL).getOrComputeIfAbsent(this, key -> closing);
    }

    public String address(String path) {
        return "http://127.0.0.1:" + server.getAddress().getPort() + path;
    }

    /** What the last request for {@code path} said in its header {@code traceparent}; null where nothing. */
    public String traceParent(String path) {
        return lastTrace.get(path);
    }

    /** Ends the test in the journal, and reads it. */
    public TestResult test() throws IOException {
        recorder.endTest(test, TestEnd.passed());
        return RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    /** Ends the test in the journal, and reads its exchanges, those in its steps too. */
    public List<ExchangeMade> exchanges() throws IOException {
        List<ExchangeMade> found = new ArrayList<>();
        gather(test().entries(), found);
        return found;
    }

    private static void gather(List<Entry> entries, List<ExchangeMade> found) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.StepEntry step) gather(step.entries(), found);
            if (entry instanceof Entry.ExchangeEntry exchange) found.add(exchange.made());
        }
    }

    /** Such as {@code POST /json 201}. */
    public String line(ExchangeMade made) {
        return made.request().method() + " " + made.request().url().replace(address(""), "") + " " + made.status();
    }
}
