package dev.orto.gate;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/** The stand-in for the gate: it knows one code, and hangs up when it is asked for anything but to open. */
final class GateServer implements AutoCloseable {

    private final ServerSocket server = new ServerSocket(0, 10, InetAddress.getLoopbackAddress());

    GateServer() throws IOException {
        Thread serving = new Thread(this::serve, "gate");
        serving.setDaemon(true);
        serving.start();
    }

    Gate client() {
        return new SocketGate(server.getInetAddress().getHostAddress(), server.getLocalPort());
    }

    private void serve() {
        while (!server.isClosed()) {
            try (Socket socket = server.accept()) {
                var lines = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
                String command = lines.readLine();
                if (!command.startsWith("OPEN ")) continue;
                String reply = command.equals("OPEN 4711") ? "OPENED" : "REFUSED";
                socket.getOutputStream().write((reply + "\n").getBytes(StandardCharsets.UTF_8));
            } catch (IOException closed) {
                // the test is over, or its client is
            }
        }
    }

    @Override
    public void close() throws IOException {
        server.close();
    }
}
