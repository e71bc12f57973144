package dev.verbale.engine.text;

import dev.verbale.folder.MediaTypes;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;

/** Bytes that are text. */
public final class PlainText {

    public static final int LOOK = 4_096;
    private static final int ESCAPE = 0x1B; // terminals' colours

    private PlainText() {}

    /**
     * Whether they begin as text: as UTF-8, UTF-16 with its mark, or in a charset of one byte a character, in each without
     * characters that no text has. A character that is cut off at the end is fine.
     */
    public static boolean isLikely(byte[] bytes) {
        int length = Math.min(bytes.length, LOOK);
        if (length >= 2
                && ((bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF)
                        || (bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE))) return true;
        int high = 0;
        for (int i = 0; i < length; i++) {
            int b = bytes[i] & 0xFF;
            if (b < ' ' && b != '\n' && b != '\r' && b != '\t' && b != '\f' && b != ESCAPE) return false;
            if (b >= 0x80) high++;
        }
        return high == 0 || isUtf8(bytes, length) || high * 4 < length;
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
