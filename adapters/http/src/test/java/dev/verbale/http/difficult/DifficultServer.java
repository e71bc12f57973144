package dev.verbale.http.difficult;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_16;
import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;

/** Answers in all the ways that a client may meet, the broken ones too, and remembers every byte it was asked with. */
public final class DifficultServer implements AutoCloseable {

    static final int MEGABYTE = 1_000_000;
    static final String BASIL = "Basil ".repeat(200);
    private static final String BROTLI = "G68E+I1Utb8WCmObUyBpYVscgAx8AA==";
    private static final String LENGTH = "Content-Length: ";

    private final ServerSocket listening;
    private final ExecutorService connections = Executors.newCachedThreadPool(work -> {
        var thread = new Thread(work, "difficult server");
        thread.setDaemon(true);
        return thread;
    });
    private final Map<String, Answering> answers = new HashMap<>();
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private final List<Received> received = Collections.synchronizedList(new ArrayList<>());
    private final AtomicInteger connected = new AtomicInteger();
    private final Semaphore hasRead = new Semaphore(0);
    private final CountDownLatch stalled = new CountDownLatch(1);

    @FunctionalInterface
    private interface Answering {
        /** Gives whether the connection goes on. */
        boolean answer(Received request, Wire wire) throws IOException;
    }

    public DifficultServer() throws IOException {
        this(new ServerSocket(0, 500, InetAddress.getLoopbackAddress()));
    }

    DifficultServer(ServerSocket listening) {
        this.listening = listening;
        wellBehaved();
        redirecting();
        broken();
        asking();
        flowing();
        connections.execute(this::listen);
    }

    // ---- what it answers

    private void wellBehaved() {
        text("/plain", "200 OK", "text/plain", BASIL.getBytes(UTF_8));
        text("/empty", "200 OK", "text/plain", new byte[0]);
        text("/latin1", "200 OK", "text/plain; charset=iso-8859-1", "Mangold für Jörg".getBytes(ISO_8859_1));
        text("/utf16", "200 OK", "text/plain; charset=utf-16", "Mangold für Jörg".getBytes(UTF_16));
        text("/json", "200 OK", "application/json", "{\"seed\":\"Kürbis\",\"plot\":7}".getBytes(UTF_8));
        text("/created", "201 Created", "application/json", "{\"plot\":7}".getBytes(UTF_8));
        text("/missing", "404 Not Found", "text/plain", "no such bed".getBytes(UTF_8));
        text("/broken", "500 Internal Server Error", "text/plain", "the pump stands still".getBytes(UTF_8));
        text("/gone", "410 Gone", "text/plain", new byte[0]);
        on("/untyped", (request, wire) -> sent(wire, "200 OK\r\n" + LENGTH + "3", "abc".getBytes(UTF_8)));
        on("/nothing-said", (request, wire) -> sent(wire, "204 No Content", null));
        on("/unchanged", (request, wire) -> sent(wire, "304 Not Modified\r\nETag: \"7\"", null));
        on(
                "/echo",
                (request, wire) -> sized(
                        wire,
                        "200 OK",
                        "application/octet-stream",
                        request.body().getBytes(ISO_8859_1)));
        on(
                "/headers",
                (request, wire) -> sized(
                        wire,
                        "200 OK\r\nX-Bed: 1\r\nX-Bed: 2\r\nX-Empty: \r\nSet-Cookie: a=1\r\nSet-Cookie: b=2; Path=/",
                        "text/plain",
                        "beds".getBytes(UTF_8)));
        on("/early", (request, wire) -> {
            wire.send("HTTP/1.1 103 Early Hints\r\nLink: </bed.css>\r\n\r\n");
            return sized(wire, "200 OK", "text/plain", "after a hint".getBytes(UTF_8));
        });
        on("/last", (request, wire) -> {
            sized(wire, "200 OK\r\nConnection: close", "text/plain", "the last".getBytes(UTF_8));
            return false;
        });
        on("/until-closed", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\nConnection: close\r\n\r\n" + BASIL);
            return false;
        });
        on("/chunked", (request, wire) -> chunked(wire, "", BASIL.getBytes(UTF_8)));
        on("/trailers", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\nTrailer: X-Sum\r\n\r\n");
            wire.chunk(BASIL.getBytes(UTF_8)).send("0\r\nX-Sum: 7\r\n\r\n");
            return true;
        });
        on("/gzip", (request, wire) -> coded(wire, "gzip", gzip()));
        on("/gzip-chunked", (request, wire) -> chunked(wire, "Content-Encoding: gzip\r\n", gzip()));
        on("/deflate", (request, wire) -> coded(wire, "deflate", deflated()));
        on("/brotli", (request, wire) -> coded(wire, "br", Base64.getDecoder().decode(BROTLI)));
        on("/said-to-be-gzip", (request, wire) -> coded(wire, "gzip", BASIL.getBytes(UTF_8)));
        on("/unknown-coding", (request, wire) -> coded(wire, "compost", BASIL.getBytes(UTF_8)));
    }

    private void redirecting() {
        for (String status : List.of(
                "301 Moved Permanently",
                "302 Found",
                "303 See Other",
                "307 Temporary Redirect",
                "308 Permanent Redirect"))
            on("/redirect-" + status.substring(0, 3), (request, wire) -> redirect(wire, status, "/echo"));
        on(
                "/redirect-with-body",
                (request, wire) -> sized(
                        wire,
                        "302 Found\r\nLocation: /plain",
                        "text/html",
                        "<a href=/plain>there</a>".getBytes(UTF_8)));
        on("/redirect-twice", (request, wire) -> redirect(wire, "302 Found", "/redirect-302"));
        on("/redirect-absolute", (request, wire) -> redirect(wire, "302 Found", address("/plain?a=b%20c#fragment")));
        on("/redirect-nowhere", (request, wire) -> redirect(wire, "302 Found", "http://127.0.0.1:1/"));
        on("/redirect-without-location", (request, wire) -> sent(wire, "302 Found\r\n" + LENGTH + "0", null));
        on("/loop", (request, wire) -> redirect(wire, "302 Found", "/loop"));
    }

    private void broken() {
        on("/closed", (request, wire) -> false);
        on("/garbage", (request, wire) -> {
            wire.send("what do you want\r\n\r\n");
            return false;
        });
        on("/cut-in-head", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Ty");
            return false;
        });
        on("/cut-in-body", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\n" + LENGTH + "5000\r\n\r\n");
            isReadMeanwhile();
            wire.send(BASIL);
            return false;
        });
        on("/cut-before-body", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\n" + LENGTH + "5000\r\n\r\n");
            isReadMeanwhile();
            return false;
        });
        on("/cut-in-chunk", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\nTransfer-Encoding: chunked\r\n\r\n");
            isReadMeanwhile();
            wire.chunk(BASIL.getBytes(UTF_8)).send("1000\r\nonly this");
            return false;
        });
        on("/cut-between-chunks", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\nTransfer-Encoding: chunked\r\n\r\n");
            isReadMeanwhile();
            wire.chunk(BASIL.getBytes(UTF_8));
            return false;
        });
        on("/cut-in-gzip", (request, wire) -> {
            byte[] half = Arrays.copyOf(gzip(), gzip().length - 12);
            wire.send("HTTP/1.1 200 OK\r\nContent-Encoding: gzip\r\n" + LENGTH + gzip().length + "\r\n\r\n")
                    .send(half);
            return false;
        });
        on("/bad-chunk", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\n");
            isReadMeanwhile();
            wire.send("zz\r\nBasil\r\n0\r\n\r\n");
            return false;
        });
        on("/stalls-in-head", (request, wire) -> stall());
        on("/stalls-in-body", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\n" + LENGTH + "5000\r\n\r\nBasil");
            return stall();
        });
    }

    private void asking() {
        on(
                "/basic",
                (request, wire) -> request.header("Authorization").equals("Basic YWRhOndhdGVyaW5n")
                        ? sized(wire, "200 OK", "text/plain", "welcome".getBytes(UTF_8))
                        : sized(
                                wire,
                                "401 Unauthorized\r\nWWW-Authenticate: Basic realm=\"shed\"",
                                "text/plain",
                                "who are you".getBytes(UTF_8)));
        on(
                "/digest",
                (request, wire) -> request.header("Authorization").startsWith("Digest username=\"ada\"")
                        ? sized(wire, "200 OK", "text/plain", "welcome".getBytes(UTF_8))
                        : sized(
                                wire,
                                "401 Unauthorized\r\nWWW-Authenticate: Digest realm=\"shed\", nonce=\"7\", qop=\"auth\"",
                                "text/plain",
                                "who are you".getBytes(UTF_8)));
        on(
                "/cookie",
                (request, wire) -> sent(
                        wire, "302 Found\r\nSet-Cookie: bed=7; Path=/\r\nLocation: /plain\r\n" + LENGTH + "0", null));
    }

    private void flowing() {
        on("/events", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nTransfer-Encoding: chunked\r\n\r\n");
            wire.chunk("data: rain\n\n".getBytes(UTF_8));
            String next = isReadMeanwhile() ? "sun" : "nobody read what came before";
            wire.chunk(("data: " + next + "\n\n").getBytes(UTF_8)).send("0\r\n\r\n");
            return true;
        });
        on("/endless", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\nTransfer-Encoding: chunked\r\n\r\n");
            try {
                while (!listening.isClosed()) wire.chunk("x".repeat(10_000).getBytes(UTF_8));
            } catch (IOException left) {
                return false;
            }
            return false;
        });
        on("/big", (request, wire) -> {
            wire.send("HTTP/1.1 200 OK\r\nContent-Type: application/octet-stream\r\n" + LENGTH + 50 * MEGABYTE
                    + "\r\n\r\n");
            for (int i = 0; i < 50; i++) wire.send(new byte[MEGABYTE]);
            return true;
        });
        on(
                "/counted",
                (request, wire) ->
                        sized(wire, "200 OK", "text/plain", request.body().getBytes(ISO_8859_1)));
    }

    // ---- how it does so

    private void on(String path, Answering answering) {
        answers.put(path, answering);
    }

    private void text(String path, String status, String type, byte[] body) {
        on(
                path,
                (request, wire) -> request.method().equals("HEAD")
                        ? sent(wire, status + "\r\nContent-Type: " + type + "\r\n" + LENGTH + body.length, null)
                        : sized(wire, status, type, body));
    }

    private static boolean sized(Wire wire, String head, String type, byte[] body) throws IOException {
        return sent(wire, head + "\r\nContent-Type: " + type + "\r\n" + LENGTH + body.length, body);
    }

    private static boolean sent(Wire wire, String head, byte[] body) throws IOException {
        wire.send("HTTP/1.1 " + head + "\r\n\r\n");
        if (body != null) wire.send(body);
        return true;
    }

    private static boolean coded(Wire wire, String coding, byte[] body) throws IOException {
        return sized(wire, "200 OK\r\nContent-Encoding: " + coding, "text/plain", body);
    }

    private static boolean chunked(Wire wire, String headers, byte[] body) throws IOException {
        wire.send("HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\n" + headers + "Transfer-Encoding: chunked\r\n\r\n");
        int half = body.length / 2;
        wire.chunk(Arrays.copyOf(body, half)).chunk(Arrays.copyOfRange(body, half, body.length));
        wire.send("0\r\n\r\n");
        return true;
    }

    private static boolean redirect(Wire wire, String status, String to) throws IOException {
        return sent(wire, status + "\r\nLocation: " + to + "\r\n" + LENGTH + "0", null);
    }

    private boolean stall() {
        try {
            stalled.await(1, TimeUnit.SECONDS);
        } catch (InterruptedException closing) {
            Thread.currentThread().interrupt();
        }
        return false;
    }

    private boolean isReadMeanwhile() {
        try {
            return hasRead.tryAcquire(10, TimeUnit.SECONDS);
        } catch (InterruptedException closing) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private static byte[] gzip() {
        return packed(GZIPOutputStream::new);
    }

    private static byte[] deflated() {
        return packed(DeflaterOutputStream::new);
    }

    private interface Packing {
        OutputStream into(OutputStream out) throws IOException;
    }

    private static byte[] packed(Packing packing) {
        var packed = new ByteArrayOutputStream();
        try (OutputStream out = packing.into(packed)) {
            out.write(BASIL.getBytes(UTF_8));
        } catch (IOException never) {
            throw new AssertionError(never);
        }
        return packed.toByteArray();
    }

    // ---- its connections

    private void listen() {
        while (!listening.isClosed()) {
            try {
                Socket socket = listening.accept();
                connections.execute(() -> serve(socket));
            } catch (IOException closed) {
                return;
            }
        }
    }

    private void serve(Socket socket) {
        connected.incrementAndGet();
        open.add(socket);
        try (socket) {
            var wire = new Wire(socket);
            if (wire.isTls()) {
                wire.send("HTTP/1.1 400 Bad Request\r\n\r\n");
                socket.shutdownOutput();
                wire.in().transferTo(OutputStream.nullOutputStream());
                return;
            }
            Received request = wire.receive();
            while (request != null && answer(request, wire)) request = wire.receive();
        } catch (IOException | RuntimeException left) {
            return; // whoever asked is gone
        } finally {
            open.remove(socket);
        }
    }

    private boolean answer(Received request, Wire wire) throws IOException {
        received.add(request);
        String path = request.path().replaceFirst("[?#].*", "");
        Answering known = answers.get(path);
        return known == null
                ? sized(wire, "404 Not Found", "text/plain", ("nothing at " + path).getBytes(UTF_8))
                : known.answer(request, wire);
    }

    // ---- what tests ask of it

    public String address(String path) {
        return "http://127.0.0.1:" + listening.getLocalPort() + path;
    }

    int port() {
        return listening.getLocalPort();
    }

    /** The client has what was sent so far. */
    void partWasRead() {
        hasRead.release();
    }

    private static void close(Socket socket) {
        try {
            socket.close();
        } catch (IOException closed) {
            return;
        }
    }

    /** What it was asked, in the order in which it came. */
    public List<Received> received() {
        synchronized (received) {
            return List.copyOf(received);
        }
    }

    int connections() {
        return connected.get();
    }

    @Override
    public void close() throws IOException {
        listening.close();
        stalled.countDown();
        for (Socket socket : open) close(socket);
        connections.shutdownNow();
    }
}
