package dev.verbale.hub;

import java.io.InputStream;
import java.util.Arrays;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** The chunks of an upload, read one after the other: a video has hundreds of megabytes. */
final class ChunkStream extends InputStream {

    private final Jdbi jdbi;
    private final long upload;
    private long at;
    private byte[] chunk = new byte[0];
    private int read;

    /** @param at where it begins, in bytes of the upload */
    ChunkStream(Jdbi jdbi, long upload, long at) {
        this.jdbi = jdbi;
        this.upload = upload;
        this.at = at;
    }

    @Override
    public int read() {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] buffer, int from, int length) {
        if (length == 0) return 0;
        if (read == chunk.length) {
            byte[] next = next();
            if (next == null) return -1;
            chunk = next;
            read = 0;
        }
        int count = Math.min(length, chunk.length - read);
        System.arraycopy(chunk, read, buffer, from, count);
        read += count;
        at += count;
        return count;
    }

    private byte @Nullable [] next() {
        return jdbi.withHandle(handle -> handle.createQuery("select at, bytes from chunks where upload_id = :upload"
                        + " and at <= :at order by at desc limit 1")
                .bind("upload", upload)
                .bind("at", at)
                .map((row, context) -> {
                    byte[] bytes = row.getBytes(2);
                    int skipped = (int) Math.min(bytes.length, at - row.getLong(1));
                    return Arrays.copyOfRange(bytes, skipped, bytes.length);
                })
                .findOne()
                .filter(bytes -> bytes.length > 0)
                .orElse(null));
    }
}
