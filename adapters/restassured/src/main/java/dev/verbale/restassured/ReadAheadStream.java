package dev.verbale.restassured;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import dev.verbale.spi.CapturedStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import org.apache.http.HttpConnection;

/** A captured response's body of which, where the test read nothing, what lies ready is read for it when its test ends. */
final class ReadAheadStream extends CapturedStream {

    private static final int PIECE = 8_192;

    private final Exchange exchange;
    private final BoundedBuffer captured;
    private final Lock reading = new ReentrantLock();
    /** Read ahead of whoever reads next. */
    private InputStream ready = InputStream.nullInputStream();

    private boolean isRead;

    ReadAheadStream(InputStream body, Exchange exchange, BoundedBuffer captured, boolean drainsWhenClosed) {
        super(body, exchange, captured, drainsWhenClosed);
        this.exchange = exchange;
        this.captured = captured;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        reading.lock();
        try {
            isRead = true;
            int before = ready.read(into, from, length);
            return before > 0 ? before : super.read(into, from, length);
        } finally {
            reading.unlock();
        }
    }

    void handOver() {
        isRead = false;
    }

    /** Reads what lies ready, where the test read nothing, and keeps it for whoever reads later. It waits for nothing. */
    void readWhatCame(HttpConnection connection) throws IOException {
        if (!reading.tryLock()) return; // somebody is at it
        try {
            if (isRead || isOver()) return;
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
