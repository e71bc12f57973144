package dev.verbale.journal;

import dev.verbale.event.ChecksumWritten;
import java.util.zip.CRC32;

/** What lines add up to since the checksum before, that line included. One thread at a time. */
final class LineSum {

    private final CRC32 crc = new CRC32();
    private long bytes;
    private boolean isKnown = true;

    void add(byte[] lines, int from, int length) {
        crc.update(lines, from, length);
        bytes += length;
    }

    /** Something else stands among the lines, of which nobody knows how much. */
    void unknown() {
        isKnown = false;
    }

    /** From here on lines are added up anew. */
    void reset() {
        crc.reset();
        bytes = 0;
        isKnown = true;
    }

    ChecksumWritten at(long at) {
        return isKnown ? new ChecksumWritten(at, bytes, crc.getValue()) : new ChecksumWritten(at, 0, null);
    }

    /** Whether these lines are those that {@code written} was made of; also where that is not known. */
    boolean fits(ChecksumWritten written) {
        Long sum = written.crc32();
        return sum == null || !isKnown || sum == crc.getValue() && written.bytes() == bytes;
    }
}
