package dev.verbale.internal;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Bytes that are text. */
final class PlainText {

    private static final int LOOK = 2_048;
    private static final Pattern CHARSET = Pattern.compile("charset=\"?([\\w.:-]+)", Pattern.CASE_INSENSITIVE);

    private PlainText() {}

    /** Whether they begin as UTF-8 without characters that no text has. A character that is cut off at the end is fine. */
    static boolean isLikely(byte[] bytes) {
        var text = CharBuffer.allocate(LOOK);
        var read = StandardCharsets.UTF_8
                .newDecoder()
                .decode(ByteBuffer.wrap(bytes, 0, Math.min(bytes.length, LOOK)), text, false);
        if (read.isError()) return false;
        text.flip();
        return text.chars().noneMatch(c -> c < ' ' && c != '\n' && c != '\r' && c != '\t' && c != '\f');
    }

    /** In the charset that its media type says, or in UTF-8. */
    static String of(byte[] bytes, String mediaType) {
        return new String(bytes, charset(mediaType));
    }

    private static Charset charset(String mediaType) {
        Matcher said = CHARSET.matcher(mediaType);
        if (!said.find()) return StandardCharsets.UTF_8;
        try {
            return Charset.forName(said.group(1));
        } catch (IllegalCharsetNameException | UnsupportedCharsetException unknown) {
            return StandardCharsets.UTF_8;
        }
    }
}
