package dev.verbale.engine.attachment;

import dev.verbale.engine.text.PlainText;
import dev.verbale.folder.MediaTypes;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * Content with its type: the one that was given, or where nobody knew it, the one that the first bytes tell. Whether it is
 * text, and so masked, is told by the bytes in any case: a name and a type say what somebody thought of it.
 */
final class TypedContent {

    private final InputStream stream;
    private final String mediaType;
    private final boolean isText;
    private final boolean isObject;

    public TypedContent(InputStream content, String given) throws IOException {
        stream = new BufferedInputStream(content, 2 * PlainText.LOOK);
        stream.mark(PlainText.LOOK);
        byte[] first = stream.readNBytes(PlainText.LOOK);
        stream.reset();
        boolean likely = PlainText.isLikely(first);
        boolean unknown = given.isBlank() || given.equals(MediaTypes.UNKNOWN);
        mediaType = unknown ? detected(new String(first, StandardCharsets.ISO_8859_1), likely) : given;
        isObject = new String(first, StandardCharsets.UTF_8)
                .replaceFirst("^\ufeff", "")
                .stripLeading()
                .startsWith("{");
        isText = likely || MediaTypes.isText(mediaType);
    }

    /** Whether it begins as an object of JSON. */
    public boolean isObject() {
        return isObject;
    }

    public boolean isText() {
        return isText;
    }

    public InputStream stream() {
        return stream;
    }

    public String mediaType() {
        return mediaType;
    }

    private static String detected(String first, boolean isText) {
        if (first.startsWith("\u0089PNG")) return "image/png";
        if (first.startsWith("\u00FF\u00D8\u00FF")) return "image/jpeg";
        if (first.startsWith("GIF8")) return "image/gif";
        if (first.startsWith("RIFF") && first.startsWith("WEBP", 8)) return "image/webp";
        if (first.startsWith("\u001AE\u00DF\u00A3")) return "video/webm";
        if (first.startsWith("ftyp", 4)) return "video/mp4";
        if (first.startsWith("%PDF")) return "application/pdf";
        if (first.startsWith("PK\u0003\u0004")) return "application/zip";
        String text = first.stripLeading().toLowerCase(Locale.ROOT);
        if (text.startsWith("<!doctype html") || text.startsWith("<html")) return "text/html";
        if (text.startsWith("<?xml")) return "application/xml";
        if (text.startsWith("{") || text.startsWith("[")) return "application/json";
        return isText && !first.isEmpty() ? "text/plain" : MediaTypes.UNKNOWN;
    }
}
