package dev.verbale.engine.text;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Takes a body of several parts apart (RFC 2046, 5.1; RFC 7578 for forms). One that breaks off has its last part cut.
 */
public final class FormParts {

    private static final Pattern BOUNDARY =
            Pattern.compile("boundary=(?:\"([^\"]+)\"|([^\\s;]+))", Pattern.CASE_INSENSITIVE);
    private static final Pattern NAME = Pattern.compile(
            "[;\\s]name=(?:\"([^\"\\\\]*+(?:\\\\.[^\"\\\\]*+)*+)\"|([^\\s;]+))", Pattern.CASE_INSENSITIVE);
    private static final Pattern FILE = Pattern.compile(
            "[;\\s]filename=(?:\"([^\"\\\\]*+(?:\\\\.[^\"\\\\]*+)*+)\"|([^\\s;]+))", Pattern.CASE_INSENSITIVE);
    private static final Pattern TYPE = Pattern.compile("(?im)^content-type:\\s*([^\\r\\n]+)");

    /** A longer head names nothing that anybody would read. */
    private static final int LONGEST_HEAD = 4_096;

    private FormParts() {}

    /**
     * @param head its own header lines; null where nobody knows them
     * @param size of it in bytes, of which {@code content} may be the beginning; -1 where it breaks off before its end
     */
    public record Part(
            String name,
            @Nullable String fileName,
            @Nullable String head,
            byte[] content,
            long size,
            String mediaType) {}

    /** What parts a body of this type; null where it does not say. */
    public static @Nullable String boundary(String mediaType) {
        return found(BOUNDARY, mediaType);
    }

    /** What a part with this head is called; null where it is not. */
    public static @Nullable String name(String head) {
        return found(NAME, head.substring(0, Math.min(head.length(), LONGEST_HEAD)));
    }

    /**
     * Its parts in their order; none where {@code mediaType} says no boundary.
     *
     * @param isWhole whether {@code body} is all that was sent
     */
    public static List<Part> in(byte[] body, String mediaType, boolean isWhole) {
        String boundary = boundary(mediaType);
        List<Part> parts = new ArrayList<>();
        if (boundary == null) return parts;
        String text = new String(body, StandardCharsets.ISO_8859_1); // a character for each byte
        String separator = "\r\n--" + boundary;
        int from = text.startsWith("--" + boundary) ? boundary.length() + 2 : after(text, separator, 0);
        while (from >= 0 && !text.startsWith("--", from)) {
            int next = text.indexOf(separator, from);
            int head = text.indexOf("\r\n\r\n", from);
            if (head < 0 || (next >= 0 && head > next)) break;
            String content = text.substring(head + 4, next < 0 ? text.length() : Math.max(head + 4, next));
            parts.add(part(
                    text.substring(from, Math.min(head, from + LONGEST_HEAD)),
                    content,
                    next < 0 && !isWhole ? -1 : content.length()));
            from = next < 0 ? -1 : next + separator.length();
        }
        return parts;
    }

    private static int after(String text, String separator, int from) {
        int at = text.indexOf(separator, from);
        return at < 0 ? -1 : at + separator.length();
    }

    private static Part part(String head, String content, long size) {
        String name = found(NAME, head);
        String type = found(TYPE, head);
        String file = found(FILE, head);
        return new Part(
                name == null ? "" : utf8(name),
                file == null ? null : utf8(file),
                utf8Text(head.startsWith("\r\n") ? head.substring(2) : head),
                content.getBytes(StandardCharsets.ISO_8859_1),
                size,
                type == null ? (file == null ? "text/plain" : "") : type.strip());
    }

    /** Of a name, in which a quote is escaped. */
    private static String utf8(String latin) {
        return utf8Text(latin).replace("\\\"", "\"");
    }

    private static String utf8Text(String latin) {
        return new String(latin.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
    }

    private static @Nullable String found(Pattern pattern, String text) {
        Matcher matcher = pattern.matcher(text);
        if (!matcher.find()) return null;
        for (int group = 1; group <= matcher.groupCount(); group++)
            if (matcher.group(group) != null) return matcher.group(group);
        return null;
    }
}
