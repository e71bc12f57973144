package dev.verbale.packing;

import dev.verbale.results.ResultsFormatException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * What the end of a ZIP archive says of it, which is known before its list of files is read into the heap.
 *
 * @see <a href="https://pkware.cachefly.net/webdocs/casestudies/APPNOTE.TXT">APPNOTE, 4.3.14 to 4.3.16</a>
 */
record ArchiveEnd(long files) {

    private static final int END = 0x06054b50;
    private static final int LARGE_END = 0x06064b50;
    private static final int LOCATOR = 0x07064b50;
    private static final int END_SIZE = 22;
    private static final int LOCATOR_SIZE = 20;
    private static final int LARGE_END_SIZE = 56;
    private static final int LONGEST_COMMENT = 0xffff;

    static ArchiveEnd of(Path file) throws IOException {
        try (SeekableByteChannel channel = Files.newByteChannel(file)) {
            int tail = (int) Math.min(channel.size(), END_SIZE + LONGEST_COMMENT + LOCATOR_SIZE);
            ByteBuffer bytes = read(channel, channel.size() - tail, tail);
            for (int at = tail - END_SIZE; at >= 0; at--) {
                if (bytes.getInt(at) != END) continue;
                int files = bytes.getShort(at + 10) & 0xffff;
                boolean isLarge = at >= LOCATOR_SIZE && bytes.getInt(at - LOCATOR_SIZE) == LOCATOR;
                return isLarge ? large(channel, bytes.getLong(at - LOCATOR_SIZE + 8), files) : new ArchiveEnd(files);
            }
        }
        throw new ResultsFormatException(
                file,
                "this is no ZIP archive, or it is cut off",
                "It has no end",
                "Name a run's folder, or a pack of it");
    }

    private static ArchiveEnd large(SeekableByteChannel channel, long at, int smaller) throws IOException {
        if (at < 0 || at > channel.size() - LARGE_END_SIZE) return new ArchiveEnd(smaller);
        ByteBuffer end = read(channel, at, LARGE_END_SIZE);
        return new ArchiveEnd(end.getInt(0) == LARGE_END ? Math.abs(end.getLong(32)) : smaller);
    }

    private static ByteBuffer read(SeekableByteChannel channel, long at, int length) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
        channel.position(at);
        while (bytes.hasRemaining() && channel.read(bytes) >= 0)
            ; // a read may give less than was asked for
        return bytes;
    }
}
