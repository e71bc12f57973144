package dev.verbale.engine.exchange;

import dev.verbale.engine.text.PlainText;
import dev.verbale.event.ExchangeMade.Header;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.InvocationTargetException;
import java.util.List;
import java.util.Locale;
import java.util.zip.GZIPInputStream;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;
import org.jspecify.annotations.Nullable;

/** Undoes what {@code Content-Encoding} says (RFC 9110, 8.4): what is packed could not be masked. */
final class ContentCoding {

    /** A body that grows beyond this is read no further. */
    private static final int LARGEST_UNPACKED = 10_000_000;

    private static final String BROTLI = "org.brotli.dec.BrotliInputStream";

    private ContentCoding() {}

    /**
     * @param bytes null where nobody here reads the coding
     * @param isWhole whether it was read to its end
     */
    public record Undone(byte @Nullable [] bytes, boolean isWhole) {}

    /** Several codings were applied in the order they stand in, and are undone from the last. */
    public static Undone undo(byte[] bytes, List<Header> headers) {
        var undone = new Undone(bytes, true);
        String stated = stated(headers);
        if (stated.isEmpty()) return undone;
        String[] codings = stated.split("\\s*,\\s*");
        for (int i = codings.length - 1; i >= 0; i--) {
            byte[] before = undone.bytes();
            if (before == null) break;
            Undone one = undo(before, codings[i]);
            undone = new Undone(one.bytes(), one.isWhole() && undone.isWhole());
        }
        return undone;
    }

    public static String stated(List<Header> headers) {
        for (Header header : headers)
            if (header.name().equalsIgnoreCase("content-encoding"))
                return header.value().strip().toLowerCase(Locale.ROOT);
        return "";
    }

    private static Undone undo(byte[] bytes, String coding) {
        if (coding.isEmpty() || coding.equals("identity") || bytes.length == 0) return new Undone(bytes, true);
        try (InputStream unpacking = unpacking(bytes, coding)) {
            if (unpacking == null) return new Undone(PlainText.isLikely(bytes) ? bytes : null, true);
            return read(unpacking, bytes);
        } catch (IOException alreadyPlain) {
            return new Undone(bytes, true); // the client undid it and left the header
        }
    }

    /** What can be read of it, where it breaks off. */
    private static Undone read(InputStream unpacking, byte[] packed) {
        var plain = new ByteArrayOutputStream();
        try {
            var piece = new byte[8_192];
            for (int read = unpacking.read(piece); read >= 0; read = unpacking.read(piece)) {
                plain.write(piece, 0, read);
                if (plain.size() > LARGEST_UNPACKED) return new Undone(plain.toByteArray(), false);
            }
        } catch (IOException broken) {
            if (plain.size() == 0) return new Undone(PlainText.isLikely(packed) ? packed : new byte[0], false);
            return new Undone(plain.toByteArray(), false);
        }
        return new Undone(plain.toByteArray(), true);
    }

    private static @Nullable InputStream unpacking(byte[] bytes, String coding) throws IOException {
        var packed = new ByteArrayInputStream(bytes);
        return switch (coding) {
            case "gzip", "x-gzip" -> new GZIPInputStream(packed);
            // Named for zlib's form, and sent by some without its head; the low four bits of that are always 8.
            case "deflate" -> new InflaterInputStream(packed, new Inflater((bytes[0] & 0x0F) != 8));
            case "br" -> brotli(packed);
            default -> null;
        };
    }

    /** Where the suite has the decoder. */
    private static @Nullable InputStream brotli(InputStream packed) throws IOException {
        ClassLoader loader = Thread.currentThread().getContextClassLoader();
        try {
            return Class.forName(BROTLI, true, loader == null ? ContentCoding.class.getClassLoader() : loader)
                    .asSubclass(InputStream.class)
                    .getConstructor(InputStream.class)
                    .newInstance(packed);
        } catch (InvocationTargetException notBrotli) {
            throw new IOException(notBrotli.getCause());
        } catch (ReflectiveOperationException absent) {
            return null;
        }
    }
}
