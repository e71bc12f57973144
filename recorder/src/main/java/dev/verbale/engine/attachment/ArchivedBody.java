package dev.verbale.engine.attachment;

import static java.nio.charset.StandardCharsets.ISO_8859_1;

import dev.verbale.engine.text.MaskedParts;
import dev.verbale.engine.text.PlainText;
import dev.verbale.folder.MediaTypes;
import dev.verbale.secrets.Redactor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Base64;
import java.util.zip.GZIPInputStream;

/** Masks a body as HTTP archives have it: text, or bytes in base64, of a type that may have parts. */
final class ArchivedBody {

    /** A packed one that grows beyond this is left out. */
    private static final int LARGEST_UNPACKED = 10_000_000;

    private final Redactor redactor;
    private final String mediaType;

    public ArchivedBody(Redactor redactor, String mediaType) {
        this.redactor = redactor;
        this.mediaType = mediaType;
    }

    public String masked(String text, String encoding) {
        if (!encoding.equalsIgnoreCase("base64")) return maskedText(text);
        try {
            byte[] bytes = unpacked(Base64.getMimeDecoder().decode(text));
            boolean isText = MediaTypes.isText(MediaTypes.plain(mediaType)) || PlainText.isLikely(bytes) || hasParts();
            if (!isText) return text;
            String latin = new String(bytes, ISO_8859_1); // a letter for each byte, so that none is lost
            return Base64.getEncoder().encodeToString(maskedText(latin).getBytes(ISO_8859_1));
        } catch (IllegalArgumentException | IOException unreadable) {
            return ""; // what it hides cannot be masked
        }
    }

    private String maskedText(String text) {
        return hasParts() ? MaskedParts.of(text, mediaType, redactor) : redactor.redacted(text);
    }

    private boolean hasParts() {
        return MediaTypes.plain(mediaType).startsWith("multipart/");
    }

    private static byte[] unpacked(byte[] bytes) throws IOException {
        if (bytes.length < 2 || bytes[0] != 0x1F || bytes[1] != (byte) 0x8B) return bytes;
        try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
            byte[] plain = in.readNBytes(LARGEST_UNPACKED);
            if (in.read() >= 0) throw new IOException("too large");
            return plain;
        }
    }
}
