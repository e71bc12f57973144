package dev.verbale.http.difficult;

import java.io.IOException;
import java.io.InputStream;

/** A client as its users use it, bare or watched. */
public interface Client extends AutoCloseable {

    /**
     * @param url the scenario's, whole
     * @param reader reads the response's body
     */
    Answer send(Scenario scenario, String url, Reader reader) throws Throwable;

    @Override
    default void close() throws Exception {}

    /** @param type the class of what the client gives */
    record Answer(int status, String type, String read) {}

    /** Reads a body as its scenario wants. */
    interface Reader {
        String read(InputStream body) throws IOException;

        /** Called before sending by a client that gives a response when all of it is there. */
        void readsWhole();

        String whole(byte[] body);
    }

    /** {@code megabytes} of zeros. */
    static InputStream zeros(int megabytes) {
        return new InputStream() {
            private long left = megabytes * 1_000_000L;

            @Override
            public int read() {
                return left-- > 0 ? 0 : -1;
            }

            @Override
            public int read(byte[] into, int from, int length) {
                if (left <= 0) return length == 0 ? 0 : -1;
                int given = (int) Math.min(left, length);
                java.util.Arrays.fill(into, from, from + given, (byte) 0);
                left -= given;
                return given;
            }
        };
    }
}
