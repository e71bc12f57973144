package dev.verbale.internal;

import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.folder.MediaTypes;
import dev.verbale.internal.OpenExchange.RawBody;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import java.util.zip.InflaterInputStream;

/** Makes bodies of exchanges fit for the journal: text in it, up to a limit, and everything else in files. */
final class Bodies {

    /** A small body that grows beyond this when it is unpacked is left packed. */
    private static final int LARGEST_UNPACKED = 10_000_000;

    private static final Pattern CHARSET = Pattern.compile("charset=\"?([\\w.:-]+)", Pattern.CASE_INSENSITIVE);

    private final FileRecorder recorder;
    private final ScopeNode scope;

    Bodies(FileRecorder recorder, ScopeNode scope) {
        this.recorder = recorder;
        this.scope = scope;
    }

    Body body(String name, RawBody raw, List<Header> headers) throws IOException {
        byte[] bytes = unpacked(raw.bytes(), headers);
        boolean unpacked = bytes != raw.bytes();
        boolean whole = raw.size() <= raw.bytes().length;
        long decoded = unpacked ? bytes.length : raw.size();
        String plainType = raw.mediaType().replaceFirst(";.*", "").strip().toLowerCase(Locale.ROOT);
        boolean isText = (MediaTypes.isText(plainType) || (plainType.isEmpty() && looksLikeText(bytes)))
                && (unpacked || !isPacked(headers));
        if (!isText) {
            String type = plainType.isEmpty() ? "application/octet-stream" : plainType;
            String file = recorder.store(scope, name, new ByteArrayInputStream(raw.bytes()), type);
            return new Body(raw.mediaType(), raw.size(), decoded, null, !whole, file);
        }
        String text = new String(bytes, charset(raw.mediaType()));
        int most = recorder.options.logging().charactersALine();
        boolean cut = text.length() > most;
        if (cut) text = text.substring(0, most);
        return new Body(raw.mediaType(), raw.size(), decoded, text, cut || !whole, null);
    }

    private static byte[] unpacked(byte[] bytes, List<Header> headers) {
        String coding = coding(headers);
        if (coding.isEmpty() || bytes.length == 0) return bytes;
        try (InputStream packed = coding.equals("gzip") || coding.equals("x-gzip")
                ? new GZIPInputStream(new ByteArrayInputStream(bytes))
                : coding.equals("deflate") ? new InflaterInputStream(new ByteArrayInputStream(bytes)) : null) {
            if (packed == null) return bytes; // such as br, which the JDK cannot read
            byte[] plain = packed.readNBytes(LARGEST_UNPACKED);
            return packed.read() < 0 ? plain : bytes;
        } catch (IOException alreadyPlain) {
            return bytes; // the client undid it and left the header, or only the beginning is here
        }
    }

    private static boolean isPacked(List<Header> headers) {
        return coding(headers).equals("br") || coding(headers).equals("zstd");
    }

    private static String coding(List<Header> headers) {
        for (Header header : headers)
            if (header.name().equalsIgnoreCase("content-encoding"))
                return header.value().strip().toLowerCase(Locale.ROOT);
        return "";
    }

    private static boolean looksLikeText(byte[] bytes) {
        for (byte b : bytes) if (b == 0) return false;
        return true;
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
