package dev.verbale.spi;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/**
 * A response's body that the test reads, captured as it does; the exchange ends with it. It behaves as the stream that it stands
 * before, also where that breaks off. {@link Exchange#responseBody(InputStream, String)} gives one; an adapter makes its own
 * where its client's stream does more, such as reading on when it is closed. For one thread at a time.
 *
 * @since 0.2.0
 */
public class CapturedStream extends FilterInputStream {

    private static final int PIECE = 8_192;

    private final Exchange exchange;
    private final BoundedBuffer captured;
    private final boolean drainsWhenClosed;
    private boolean over;

    /**
     * @param captured where it is kept, as the response's body of {@code exchange}
     * @param drainsWhenClosed whether {@code body} reads to its end when it is closed, unseen: then this does it instead
     */
    public CapturedStream(InputStream body, Exchange exchange, BoundedBuffer captured, boolean drainsWhenClosed) {
        super(body);
        this.exchange = exchange;
        this.captured = captured;
        this.drainsWhenClosed = drainsWhenClosed;
    }

    @Override
    public final int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int read;
        try {
            read = in.read(into, from, length);
        } catch (IOException broken) {
            over = true;
            exchange.failed(broken);
            throw broken;
        }
        if (read < 0) {
            over = true;
            exchange.ended();
        } else {
            captured.add(into, from, read);
        }
        return read;
    }

    /** By reading: what is skipped came over the wire too. */
    @Override
    public final long skip(long wanted) throws IOException {
        var passed = new byte[(int) Math.min(Math.max(wanted, 0), PIECE)];
        return wanted <= 0 ? 0 : Math.max(0, read(passed, 0, passed.length));
    }

    @Override
    public final boolean markSupported() {
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

    /** Whether it came to its end, broke off or was closed. */
    protected final boolean isOver() {
        return over;
    }

    private void drain() throws IOException {
        var piece = new byte[PIECE];
        int read = 0;
        while (read >= 0) read = read(piece, 0, piece.length);
    }
}
