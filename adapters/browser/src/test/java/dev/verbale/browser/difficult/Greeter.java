package dev.verbale.browser.difficult;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Scanner;

/** A server of web sockets (RFC 6455) that greets each client and hangs up. */
public final class Greeter implements AutoCloseable {

    private static final String GREETING = "good morning";

    private final ServerSocket server;

    public Greeter() throws IOException {
        server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        var thread = new Thread(this::serve, "greeter");
        thread.setDaemon(true);
        thread.start();
    }

    public int port() {
        return server.getLocalPort();
    }

    private void serve() {
        while (!server.isClosed()) {
            try (Socket client = server.accept()) {
                greet(client);
            } catch (Exception gone) {
                // one that does not wait for its greeting, or the end
            }
        }
    }

    private static void greet(Socket client) throws Exception {
        String key = "";
        var lines = new Scanner(client.getInputStream(), UTF_8);
        for (String line = lines.nextLine(); !line.isEmpty(); line = lines.nextLine())
            if (line.startsWith("Sec-WebSocket-Key:")) key = line.substring(18).strip();
        byte[] hash = MessageDigest.getInstance("SHA-1")
                .digest((key + "258EAFA5-E914-47DA-95CA-C5AB0DC85B11").getBytes(UTF_8));
        client.getOutputStream()
                .write(("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n"
                                + "Sec-WebSocket-Accept: " + Base64.getEncoder().encodeToString(hash) + "\r\n\r\n")
                        .getBytes(UTF_8));
        client.getOutputStream().write(0x81);
        client.getOutputStream().write(GREETING.length());
        client.getOutputStream().write(GREETING.getBytes(UTF_8));
        client.getOutputStream().write(new byte[] {(byte) 0x88, 0});
        client.getOutputStream().flush();
        client.getInputStream().read(); // its own goodbye
    }

    @Override
    public void close() throws IOException {
        server.close();
    }
}
