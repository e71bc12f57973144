package dev.verbale.engine.exchange;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** A body that the test reads, captured as it does; the exchange ends with it. */
final class CapturedStream extends FilterInputStream {

    private final Exchange exchange;
    private final BoundedBuffer captured;

    public CapturedStream(InputStream body, Exchange exchange, BoundedBuffer captured) {
        super(body);
        this.exchange = exchange;
        this.captured = captured;
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int read;
        try {
            read = super.read(into, from, length);
        } catch (IOException broken) {
            exchange.failed(broken);
            throw broken;
        }
        if (read < 0) exchange.ended();
        else captured.add(into, from, read);
        return read;
    }

    /** By reading: what is skipped came over the wire too. */
    @Override
    public long skip(long wanted) throws IOException {
        var passed = new byte[(int) Math.min(Math.max(wanted, 0), 8_192)];
        return wanted <= 0 ? 0 : Math.max(0, read(passed, 0, passed.length));
    }

    @Override
    public boolean markSupported() {
        return false; // what is read twice would be captured twice
    }

    @Override
    public void close() throws IOException {
        try {
            super.close();
        } finally {
            exchange.ended();
        }
    }
}
