package dev.verbale.sending;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Set;

/** The last lines of a journal, which say whether its JVM ended in order: late events may follow the line that does. */
final class JournalTail {

    private static final int LENGTH = 64 << 10;
    private static final String ENDED = "{\"event\":\"journal-ended\"";

    private JournalTail() {}

    static boolean hasEnded(Path journal) throws IOException {
        try (FileChannel in = FileChannel.open(journal, Set.of(StandardOpenOption.READ, LinkOption.NOFOLLOW_LINKS))) {
            long from = Math.max(0, in.size() - LENGTH);
            ByteBuffer tail = ByteBuffer.allocate(LENGTH);
            for (int read = 0; read >= 0 && tail.hasRemaining(); ) read = in.read(tail, from + tail.position());
            String text = new String(tail.array(), 0, tail.position(), StandardCharsets.ISO_8859_1);
            return text.startsWith(ENDED) && from == 0 || text.contains("\n" + ENDED);
        }
    }
}
