package dev.verbale.internal;

import dev.verbale.secrets.Redactor;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/**
 * Copies text and masks its secrets, with constant memory: piece by piece, cut at the ends of lines, or of words in a line
 * that has no end.
 *
 * <p>The bytes are read as Latin-1, which gives every byte back as it was, whatever the text's charset; values that were
 * announced are known in that form too.
 */
final class MaskedCopy {

    private static final int PIECE = 1 << 16;
    private static final int LONGEST_LINE = 1 << 20;

    private MaskedCopy() {}

    static void copy(InputStream in, OutputStream out, Redactor redactor) throws IOException {
        var pending = new ByteArrayOutputStream();
        var piece = new byte[PIECE];
        for (int read = in.read(piece); read >= 0; read = in.read(piece)) {
            int end = pending.size() > 2 * LONGEST_LINE
                    ? read // no text has such words: memory must stay flat all the same
                    : lastEnd(piece, read, pending.size() > LONGEST_LINE);
            pending.write(piece, 0, end);
            if (end > 0) {
                write(pending, out, redactor);
                pending.reset();
            }
            pending.write(piece, end, read - end);
        }
        write(pending, out, redactor);
    }

    private static int lastEnd(byte[] bytes, int length, boolean ofWord) {
        for (int i = length; i > 0; i--) {
            byte b = bytes[i - 1];
            if (b == '\n' || (ofWord && (b == ' ' || b == ',' || b == '&' || b == '>'))) return i;
        }
        return 0;
    }

    private static void write(ByteArrayOutputStream pending, OutputStream out, Redactor redactor) throws IOException {
        String text = pending.toString(StandardCharsets.ISO_8859_1);
        String masked = redactor.redacted(text);
        out.write(masked.getBytes(StandardCharsets.ISO_8859_1));
    }
}
