package dev.verbale.restassured;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import org.apache.http.HttpConnection;

/**
 * A response's body that the test reads, captured; the exchange ends with it. It behaves as the stream that it stands before,
 * also where that breaks off.
 */
final class CapturedStream extends FilterInputStream {

    private static final int PIECE = 8_192;

    private final Exchange exchange;
    private final BoundedBuffer captured;
    private final boolean drainsWhenClosed;
    private final Lock reading = new ReentrantLock();
    /** Read ahead of whoever reads next. */
    private InputStream ready = InputStream.nullInputStream();

    private boolean isRead;
    private boolean over;

    CapturedStream(InputStream body, Exchange exchange, BoundedBuffer captured, boolean drainsWhenClosed) {
        super(body);
        this.exchange = exchange;
        this.captured = captured;
        this.drainsWhenClosed = drainsWhenClosed;
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        reading.lock();
        try {
            isRead = true;
            int before = ready.read(into, from, length);
            return before > 0 ? before : readOn(into, from, length);
        } finally {
            reading.unlock();
        }
    }

    private int readOn(byte[] into, int from, int length) throws IOException {
        int read;
        try {
            read = in.read(into, from, length);
        } catch (IOException broken) {
            over = true;
            exchange.failed(broken);
            throw broken;
        }
        if (read >= 0) captured.add(into, from, read);
        else {
            over = true;
            exchange.ended();
        }
        return read;
    }

    /** By reading: what is skipped came over the wire too. */
    @Override
    public long skip(long wanted) throws IOException {
        var passed = new byte[(int) Math.min(Math.max(wanted, 0), PIECE)];
        return wanted <= 0 ? 0 : Math.max(0, read(passed, 0, passed.length));
    }

    @Override
    public boolean markSupported() {
        return false; // what is read twice would be captured twice
    }

    @Override
    public void close() throws IOException {
        try {
            if (drainsWhenClosed && !over) drain();
        } finally {
            over = true;
            try {
                in.close();
            } finally {
                exchange.ended();
            }
        }
    }

    /** As the stream underneath is about to do by itself, unseen. */
    private void drain() throws IOException {
        var piece = new byte[PIECE];
        int read = 0;
        while (read >= 0) read = read(piece, 0, piece.length);
    }

    void handOver() {
        isRead = false;
    }

    /** Reads what lies ready, where the test read nothing, and keeps it for whoever reads later. It waits for nothing. */
    void readWhatCame(HttpConnection connection) throws IOException {
        if (!reading.tryLock()) return; // somebody is at it
        try {
            if (isRead || over) return;
            int before = connection.getSocketTimeout();
            connection.setSocketTimeout(1); // the shortest that is not "for ever"
            var received = new ByteArrayOutputStream();
            try {
                var piece = new byte[PIECE];
                int read = 0;
                while (read >= 0 && !captured.isFull()) {
                    read = in.read(piece, 0, piece.length);
                    if (read > 0) captured.add(piece, 0, read);
                    if (read > 0) received.write(piece, 0, read);
                }
                exchange.attribute("body", "the test did not read it");
                if (read < 0) exchange.ended();
            } finally {
                ready = new ByteArrayInputStream(received.toByteArray());
                connection.setSocketTimeout(before);
            }
        } finally {
            reading.unlock();
        }
    }
}
