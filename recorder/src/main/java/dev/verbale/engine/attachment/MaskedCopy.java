package dev.verbale.engine.attachment;

import dev.verbale.engine.text.PlainText;
import dev.verbale.secrets.RedactingReader;
import dev.verbale.secrets.Redactor;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;

/**
 * Copies text and masks its secrets, with constant memory.
 *
 * <p>The bytes are read as Latin-1, which gives every byte back as it was, whatever the text's charset; values that were
 * known are known in that form too. Only UTF-16, in which each letter has two bytes, is read as what it is.
 */
final class MaskedCopy {

    private MaskedCopy() {}

    public static void copy(InputStream in, OutputStream out, Redactor redactor) throws IOException {
        var marked = in.markSupported() ? in : new BufferedInputStream(in);
        Charset charset = charset(marked);
        var writer = new OutputStreamWriter(out, charset);
        RedactingReader.copy(redactor, new InputStreamReader(marked, charset), writer);
        writer.flush();
    }

    private static Charset charset(InputStream in) throws IOException {
        in.mark(PlainText.LOOKED_AT);
        byte[] first = in.readNBytes(PlainText.LOOKED_AT);
        in.reset();
        Charset wide = PlainText.wide(first);
        return wide == null ? StandardCharsets.ISO_8859_1 : wide;
    }
}
