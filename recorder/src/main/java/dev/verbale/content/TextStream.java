package dev.verbale.content;

import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Objects;

/** A text as UTF-8, encoded as it is read: the text may be as large as half of the memory. */
public final class TextStream extends InputStream {

    private static final int PIECE = 1 << 13;

    private final CharBuffer text;
    private final CharsetEncoder encoder = StandardCharsets.UTF_8
            .newEncoder()
            .onMalformedInput(CodingErrorAction.REPLACE)
            .onUnmappableCharacter(CodingErrorAction.REPLACE);
    private final ByteBuffer ready = ByteBuffer.allocate(PIECE).limit(0);
    private boolean flushed;

    public TextStream(CharSequence text) {
        this.text = CharBuffer.wrap(text);
    }

    @Override
    public int read() {
        return isReady() ? ready.get() & 0xFF : -1;
    }

    @Override
    public int read(byte[] into, int from, int length) {
        Objects.checkFromIndexSize(from, length, into.length);
        if (length == 0) return 0;
        if (!isReady()) return -1;
        int some = Math.min(length, ready.remaining());
        ready.get(into, from, some);
        return some;
    }

    private boolean isReady() {
        while (!ready.hasRemaining() && !flushed) {
            ready.clear();
            if (encoder.encode(text, ready, true).isUnderflow()) {
                encoder.flush(ready);
                flushed = true;
            }
            ready.flip();
        }
        return ready.hasRemaining();
    }
}
