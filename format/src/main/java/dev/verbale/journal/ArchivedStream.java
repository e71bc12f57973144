package dev.verbale.journal;

import java.io.FilterInputStream;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.CRC32;
import org.jspecify.annotations.Nullable;

/**
 * A file in an archive, which may be damaged, or made to harm whoever reads it: it never gives more than the archive says that it has, and
 * where it gives something else, its end is an error.
 */
final class ArchivedStream extends FilterInputStream {

    private final Path file;
    private final long size;
    private final @Nullable Long sum;
    private final CRC32 read = new CRC32();
    private long count;

    ArchivedStream(Path file) throws IOException {
        super(Files.newInputStream(file));
        this.file = file;
        this.size = Files.size(file);
        this.sum = sum(file);
    }

    /** Null where this is no ZIP archive. */
    private static @Nullable Long sum(Path file) throws IOException {
        try {
            return Files.getAttribute(file, "zip:crc") instanceof Long known ? known : null;
        } catch (UnsupportedOperationException | IllegalArgumentException unknown) {
            return null;
        }
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] buffer, int from, int length) throws IOException {
        int got = super.read(buffer, from, length);
        if (got < 0) {
            if (count != size) throw damaged("ends after " + count + " of " + size + " bytes");
            if (sum != null && sum != read.getValue()) throw damaged("has other bytes than were put into it");
            return got;
        }
        count += got;
        if (count > size) throw damaged("is longer than the archive says");
        read.update(buffer, from, got);
        return got;
    }

    /** By reading: what is passed over counts. */
    @Override
    public long skip(long bytes) throws IOException {
        byte[] passed = new byte[(int) Math.min(1 << 14, Math.max(0, bytes))];
        int got = passed.length == 0 ? 0 : read(passed, 0, passed.length);
        return Math.max(0, got);
    }

    @Override
    public boolean markSupported() {
        return false;
    }

    private FileSystemException damaged(String how) {
        return new FileSystemException(file.toString(), null, "is damaged: it " + how);
    }
}
