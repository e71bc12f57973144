package dev.verbale.engine.text;

import dev.verbale.folder.MediaTypes;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/** Bytes that are text. */
public final class PlainText {

    public static final int LOOK = 4_096;
    /** So many bytes tell which kind of UTF-16 they are. */
    public static final int LOOKED_AT = 64;

    private static final int FEWEST_WIDE = 8;
    private static final int ESCAPE = 0x1B; // terminals' colours

    private PlainText() {}

    /**
     * Whether they begin as text: as UTF-8, UTF-16, or in a charset of one byte a character, in each without
     * characters that no text has. A character that is cut off at the end is fine.
     */
    public static boolean isLikely(byte[] bytes) {
        int length = Math.min(bytes.length, LOOK);
        if (wide(bytes) != null) return true;
        int high = 0;
        for (int i = 0; i < length; i++) {
            int b = bytes[i] & 0xFF;
            if (b < ' ' && b != '\n' && b != '\r' && b != '\t' && b != '\f' && b != ESCAPE) return false;
            if (b >= 0x80) high++;
        }
        return high == 0 || isUtf8(bytes, length) || high * 4 < length;
    }

    /** Which kind of UTF-16 they begin as: by its mark, or since every other byte of the first ones is zero; null for none. */
    public static @Nullable Charset wide(byte[] bytes) {
        if (bytes.length < 2) return null;
        if (bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF) return StandardCharsets.UTF_16BE;
        if (bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE) return StandardCharsets.UTF_16LE;
        if (bytes.length < FEWEST_WIDE) return null;
        int even = 0;
        int odd = 0;
        int looked = Math.min(bytes.length, LOOKED_AT) & ~1;
        for (int i = 0; i < looked; i += 2) {
            if (bytes[i] == 0) even++;
            if (bytes[i + 1] == 0) odd++;
        }
        if (even == looked / 2 && odd == 0) return StandardCharsets.UTF_16BE;
        return odd == looked / 2 && even == 0 ? StandardCharsets.UTF_16LE : null;
    }

    private static boolean isUtf8(byte[] bytes, int length) {
        var text = CharBuffer.allocate(LOOK);
        return !StandardCharsets.UTF_8
                .newDecoder()
                .decode(ByteBuffer.wrap(bytes, 0, length), text, false)
                .isError();
    }

    /** In the charset that its media type says, or in UTF-8. */
    public static String of(byte[] bytes, String mediaType) {
        return new String(bytes, MediaTypes.charset(mediaType));
    }
}
