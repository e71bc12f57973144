package dev.verbale.hub;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;

/**
 * A way to a server on which connections are cut, in the middle of what is asked or of what is answered, answers come late, and what was asked
 * comes once more, later, behind what was asked after it.
 */
final class UnsteadyNetwork implements AutoCloseable {

    private static final int LONGEST_DELAY_MILLIS = 40;
    private static final int LONGEST_LIFE = 200_000;
    private static final int REMEMBERED = 1 << 20;

    private final InetSocketAddress server;
    private final ServerSocket door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final Random random;
    private final AtomicInteger cuts = new AtomicInteger();
    private final AtomicInteger repeated = new AtomicInteger();

    UnsteadyNetwork(InetSocketAddress server, long seed) throws IOException {
        this.server = server;
        this.random = new Random(seed);
        threads.execute(this::accept);
    }

    URI address() {
        return URI.create("http://127.0.0.1:" + door.getLocalPort());
    }

    int cuts() {
        return cuts.get();
    }

    int repeated() {
        return repeated.get();
    }

    private void accept() {
        while (true)
            try {
                Socket client = door.accept();
                threads.execute(() -> connect(client));
            } catch (IOException closed) {
                return;
            }
    }

    private void connect(Socket client) {
        boolean inQuestion = any(2) == 0;
        int life = 1 + any(LONGEST_LIFE);
        var asked = new ByteArrayOutputStream();
        try (client;
                Socket onwards = new Socket(server.getAddress(), server.getPort())) {
            var there = threads.submit(() -> pass(client, onwards, inQuestion ? life : Integer.MAX_VALUE, asked));
            pass(onwards, client, inQuestion ? Integer.MAX_VALUE : 1 + life / 100, null);
            there.cancel(true);
        } catch (IOException ended) {
            // as connections do
        }
        cuts.incrementAndGet();
        again(asked.toByteArray());
    }

    /** Until one of both ends it, or it has lived for {@code life} bytes. */
    private void pass(Socket from, Socket to, int life, ByteArrayOutputStream remembered) {
        byte[] buffer = new byte[4096];
        try (from;
                to) {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            int left = life;
            for (int read = in.read(buffer, 0, Math.min(left, buffer.length)); read > 0; ) {
                if (any(10) == 0) LockSupport.parkNanos(any(LONGEST_DELAY_MILLIS) * 1_000_000L);
                out.write(buffer, 0, read);
                if (remembered != null && remembered.size() < REMEMBERED) remembered.write(buffer, 0, read);
                left -= read;
                read = left == 0 ? 0 : in.read(buffer, 0, Math.min(left, buffer.length));
            }
        } catch (IOException ended) {
            // as connections do
        }
    }

    private void again(byte[] asked) {
        if (asked.length == 0) return;
        try (var once = new Socket(server.getAddress(), server.getPort())) {
            once.setSoTimeout(2_000);
            once.getOutputStream().write(asked);
            once.shutdownOutput();
            once.getInputStream().readAllBytes();
        } catch (IOException ended) {
            // as connections do
        }
        repeated.incrementAndGet();
    }

    private int any(int bound) {
        synchronized (random) {
            return random.nextInt(bound);
        }
    }

    @Override
    public void close() throws IOException {
        door.close();
        threads.shutdownNow();
    }
}
