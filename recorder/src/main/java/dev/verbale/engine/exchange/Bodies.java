package dev.verbale.engine.exchange;

import dev.verbale.engine.attachment.Attachments;
import dev.verbale.engine.exchange.ContentCoding.Undone;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.settings.CoreSettings;
import dev.verbale.engine.text.FormParts;
import dev.verbale.engine.text.PlainText;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.folder.MediaTypes;
import dev.verbale.secrets.Redactor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Makes bodies of exchanges fit for the journal: short text in it, long text by its beginning and as a file, everything else
 * as files. What could not be masked is not kept.
 */
final class Bodies {

    private static final int LONGEST_WORD = 4_096;

    private final Attachments attachments;
    private final Texts texts;
    private final ScopeNode scope;
    private final int limit;
    private final int longestText;

    /**
     * @param limit bytes of each that are kept
     * @param longestText that stands in the journal, in characters
     */
    Bodies(Attachments attachments, Texts texts, ScopeNode scope, int limit, int longestText) {
        this.attachments = attachments;
        this.texts = texts;
        this.scope = scope;
        this.limit = limit;
        this.longestText = longestText;
    }

    /** As it came over the wire, or as much of it as somebody kept. */
    public record Raw(byte[] bytes, long size, String mediaType) {}

    /**
     * @param name of the file, where it becomes one
     */
    public Body body(String name, Raw raw, List<Header> headers) throws IOException {
        if (limit == 0) return leftOut(raw, CoreSettings.EXCHANGE_BYTES.key() + " is 0");
        Undone undone = ContentCoding.undo(raw.bytes(), headers);
        byte[] bytes = undone.bytes();
        if (bytes == null)
            return leftOut(
                    raw,
                    "packed as " + ContentCoding.stated(headers) + ", which cannot be read here, and so not be masked");
        boolean here = raw.size() <= raw.bytes().length;
        boolean whole = here && undone.isWhole() && bytes.length <= limit;
        long decoded = bytes == raw.bytes() || !(here && undone.isWhole()) ? raw.size() : bytes.length;
        if (bytes.length > limit) bytes = Arrays.copyOf(bytes, limit);
        String type = MediaTypes.plain(raw.mediaType());
        if (type.startsWith("multipart/")) {
            List<Part> parts = parts(FormParts.in(bytes, raw.mediaType(), whole));
            if (parts.isEmpty()) return leftOut(raw, "its parts cannot be told apart, and so not be masked");
            return new Body(raw.mediaType(), raw.size(), decoded, null, !whole, null, parts, null);
        }
        return kept(name, bytes, raw, decoded, whole, type);
    }

    /** A body of which only its parts are known. */
    public Body ofParts(List<FormParts.Part> parts) throws IOException {
        long size = 0;
        for (FormParts.Part part : parts) size += part.size();
        return new Body("multipart/form-data", -1, size, null, false, null, parts(parts), null);
    }

    private Body kept(String name, byte[] bytes, Raw raw, long decoded, boolean whole, String type) throws IOException {
        if (MediaTypes.isText(type) || PlainText.isLikely(bytes)) {
            String text = PlainText.of(bytes, raw.mediaType());
            if (!whole) text = withoutCutWord(text);
            if (text.length() <= longestText)
                return new Body(raw.mediaType(), raw.size(), decoded, text, !whole, null, List.of(), null);
            String masked = texts.redacted(text); // before it is cut: half a secret is not known for one
            String file = file(name, masked.getBytes(StandardCharsets.UTF_8), isUnknown(type) ? "text/plain" : type);
            String beginning = masked.substring(0, Math.min(longestText, masked.length()));
            return new Body(raw.mediaType(), raw.size(), decoded, beginning, !whole, file, List.of(), null);
        }
        String file = file(name, bytes, isUnknown(type) ? MediaTypes.UNKNOWN : type);
        return new Body(raw.mediaType(), raw.size(), decoded, null, !whole, file, List.of(), null);
    }

    private String file(String name, byte[] bytes, String type) throws IOException {
        return attachments.store(scope, name, new ByteArrayInputStream(bytes), type);
    }

    private List<Part> parts(List<FormParts.Part> found) throws IOException {
        List<Part> parts = new ArrayList<>();
        for (FormParts.Part part : found) {
            byte[] content = part.content();
            if (limit == 0) {
                var unread = new Raw(content, part.size(), part.mediaType());
                parts.add(new Part(
                        part.name(), part.fileName(), leftOut(unread, CoreSettings.EXCHANGE_BYTES.key() + " is 0")));
                continue;
            }
            if (texts.isSecretName(part.name())) content = Redactor.MASK.getBytes(StandardCharsets.UTF_8);
            boolean cut = part.size() != part.content().length || content.length > limit;
            if (content.length > limit) content = Arrays.copyOf(content, limit);
            var raw = new Raw(content, part.size(), part.mediaType());
            String name = part.fileName() == null ? "part " + part.name() : part.fileName();
            String type = MediaTypes.plain(part.mediaType());
            Body body = type.startsWith("multipart/")
                    ? leftOut(raw, "parts of a part are not told apart, and so not masked")
                    : kept(name, content, raw, raw.size(), !cut, type);
            parts.add(new Part(part.name(), part.fileName(), part.head(), body));
        }
        return parts;
    }

    private static Body leftOut(Raw raw, String why) {
        return new Body(raw.mediaType(), raw.size(), raw.size(), null, false, null, List.of(), why);
    }

    /** Half a secret is not known for one. */
    private static String withoutCutWord(String text) {
        int end = text.length();
        while (end > 0 && text.length() - end < LONGEST_WORD && isOfWord(text.charAt(end - 1))) end--;
        return text.substring(0, end);
    }

    private static boolean isOfWord(char c) {
        return !Character.isWhitespace(c) && ",;&<>{}[]\"'".indexOf(c) < 0;
    }

    private static boolean isUnknown(String type) {
        return type.isEmpty() || type.equals(MediaTypes.UNKNOWN);
    }
}
