package dev.verbale.journal.line;

import dev.verbale.event.ChecksumWritten;
import java.util.List;

/** Lines of {@link ChecksumWritten}. */
final class ChecksumWrittenCodec extends EventCodec<ChecksumWritten> {

    private static final long LARGEST_CRC = 0xFFFF_FFFFL;

    private final NumberField bytes = number(
            "bytes",
            "how many bytes there are from the beginning of the `checksum` before, or of the journal, to this line",
            1,
            Long.MAX_VALUE,
            0L);
    private final NumberField crc32 = optionalNumber(
            "crc32",
            "the CRC-32 of these bytes, as gzip has it (RFC 1952); left out where a write failed among them, so that nobody knows what they should be",
            0,
            LARGEST_CRC);

    ChecksumWrittenCodec() {
        super(
                ChecksumWritten.class,
                "checksum",
                "What the lines before add up to; one comes after 1,000 lines, and one behind `journal-ended`. Where it does not fit, they were changed, some were cut out, or some put in.");
    }

    @Override
    void write(JsonLine line, ChecksumWritten event) {
        bytes.write(line, event.bytes());
        crc32.write(line, event.crc32());
    }

    @Override
    ChecksumWritten read(Fields fields) {
        return new ChecksumWritten(at(fields), bytes.read(fields), crc32.readOrNull(fields));
    }

    @Override
    public List<ChecksumWritten> samples() {
        return List.of(new ChecksumWritten(10, 130, 0xCAFE_F00DL), new ChecksumWritten(10, 0, null));
    }
}
