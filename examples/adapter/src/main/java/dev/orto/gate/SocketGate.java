package dev.orto.gate;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/** The gate over TCP. */
public final class SocketGate implements Gate {

    private final String host;
    private final int port;

    public SocketGate(String host, int port) {
        this.host = host;
        this.port = port;
    }

    @Override
    public String ask(String command) throws IOException {
        try (var socket = new Socket(host, port)) {
            socket.getOutputStream().write((command + "\n").getBytes(StandardCharsets.UTF_8));
            String reply = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8))
                    .readLine();
            if (reply == null) throw new IOException("the gate hung up");
            return reply;
        }
    }

    @Override
    public String toString() {
        return "tcp://" + host + ":" + port;
    }
}
