package dev.verbale.http.difficult;

import static java.nio.charset.StandardCharsets.ISO_8859_1;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32;

/** One connection, read and written byte by byte: what a well-behaved server would never send can be sent here. */
final class Wire {

    private static final int LONG = 100_000;

    private final InputStream in;
    private final OutputStream out;

    Wire(Socket socket) throws IOException {
        in = new BufferedInputStream(socket.getInputStream());
        out = socket.getOutputStream();
    }

    /** Whether the far end begins to speak TLS. */
    boolean isTls() throws IOException {
        in.mark(1);
        int first = in.read();
        in.reset();
        return first == 0x16;
    }

    /** The next request, its body included; null where the far end is gone. */
    Received receive() throws IOException {
        String line = line();
        while (line != null && line.isEmpty()) line = line();
        if (line == null) return null;
        List<String> headers = new ArrayList<>();
        for (String header = line(); header != null && !header.isEmpty(); header = line()) headers.add(header);
        var head = new Received(line, headers, "");
        if (head.header("Expect").equalsIgnoreCase("100-continue")) send("HTTP/1.1 100 Continue\r\n\r\n");
        return new Received(line, headers, body(head));
    }

    private String body(Received head) throws IOException {
        var kept = new ByteArrayOutputStream();
        var sum = new CRC32();
        long length = 0;
        if (head.header("Transfer-Encoding").equalsIgnoreCase("chunked")) {
            for (int chunk = chunk(); chunk > 0; chunk = chunk()) {
                length += take(chunk, kept, sum);
                line();
            }
            line();
        } else if (!head.header("Content-Length").isEmpty()) {
            length = take(Long.parseLong(head.header("Content-Length")), kept, sum);
        }
        return length > LONG ? length + " bytes, sum " + sum.getValue() : kept.toString(ISO_8859_1);
    }

    private int chunk() throws IOException {
        return Integer.parseInt(line().replaceFirst(";.*", "").strip(), 16);
    }

    private long take(long length, ByteArrayOutputStream kept, CRC32 sum) throws IOException {
        var piece = new byte[8_192];
        long left = length;
        while (left > 0) {
            int read = in.read(piece, 0, (int) Math.min(left, piece.length));
            if (read < 0) throw new IOException("the request breaks off");
            sum.update(piece, 0, read);
            if (kept.size() <= LONG) kept.write(piece, 0, read);
            left -= read;
        }
        return length;
    }

    private String line() throws IOException {
        var line = new ByteArrayOutputStream();
        for (int one = in.read(); one != '\n'; one = in.read()) {
            if (one < 0) return line.size() == 0 ? null : line.toString(ISO_8859_1);
            if (one != '\r') line.write(one);
        }
        return line.toString(ISO_8859_1);
    }

    InputStream in() {
        return in;
    }

    Wire send(String text) throws IOException {
        return send(text.getBytes(ISO_8859_1));
    }

    Wire send(byte[] bytes) throws IOException {
        out.write(bytes);
        out.flush();
        return this;
    }

    Wire chunk(byte[] bytes) throws IOException {
        return send(Integer.toHexString(bytes.length) + "\r\n").send(bytes).send("\r\n");
    }
}
