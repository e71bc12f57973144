package dev.verbale.folder;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The media types that attachments usually have, and the file extensions that say so.
 *
 * @since 0.2.0
 */
public final class MediaTypes {

    /** For content of which nothing is known. */
    public static final String UNKNOWN = "application/octet-stream";

    /** For HTTP archives, HAR 1.2. */
    public static final String HTTP_ARCHIVE = "application/har+json";

    private static final Pattern CHARSET = Pattern.compile("charset=\"?([\\w.:-]+)", Pattern.CASE_INSENSITIVE);

    private static final Map<String, String> TYPE_BY_EXTENSION = new LinkedHashMap<>();
    private static final Map<String, String> EXTENSION_BY_TYPE = new LinkedHashMap<>();

    static {
        known(".txt", "text/plain");
        known(".log", "text/plain");
        known(".html", "text/html");
        known(".htm", "text/html");
        known(".csv", "text/csv");
        known(".md", "text/markdown");
        known(".css", "text/css");
        known(".js", "text/javascript");
        known(".json", "application/json");
        known(".har", HTTP_ARCHIVE);
        known(".xml", "application/xml");
        known(".yaml", "application/yaml");
        known(".png", "image/png");
        known(".jpg", "image/jpeg");
        known(".jpeg", "image/jpeg");
        known(".gif", "image/gif");
        known(".webp", "image/webp");
        known(".svg", "image/svg+xml");
        known(".webm", "video/webm");
        known(".mp4", "video/mp4");
        known(".pdf", "application/pdf");
        known(".zip", "application/zip");
    }

    private MediaTypes() {}

    private static void known(String extension, String type) {
        TYPE_BY_EXTENSION.put(extension, type);
        EXTENSION_BY_TYPE.putIfAbsent(type, extension);
    }

    /** The type that a file of this name most likely has, or {@link #UNKNOWN}. */
    public static String ofFile(String fileName) {
        return TYPE_BY_EXTENSION.getOrDefault(FileNames.extension(fileName), UNKNOWN);
    }

    /** The extension for content of {@code type}, with its dot; parameters such as a charset are passed over. */
    public static String extension(String type) {
        String plain = plain(type);
        String known = EXTENSION_BY_TYPE.get(plain);
        if (known != null) return known;
        if (plain.endsWith("+json")) return ".json";
        if (plain.endsWith("+xml")) return ".xml";
        return plain.startsWith("text/") ? ".txt" : ".bin";
    }

    /** Whether content of {@code type} can be read as text. */
    public static boolean isText(String type) {
        String plain = plain(type);
        return plain.startsWith("text/")
                || plain.endsWith("json")
                || plain.endsWith("xml")
                || plain.endsWith("/yaml")
                || plain.endsWith("/x-ndjson")
                || plain.endsWith("/jsonl")
                || plain.endsWith("/x-www-form-urlencoded")
                || plain.endsWith("/graphql")
                || plain.endsWith("/javascript");
    }

    /** The charset that {@code type} says; UTF-8 where it says none, or one that this JVM does not know. */
    public static Charset charset(String type) {
        Matcher charset = CHARSET.matcher(type);
        if (!charset.find()) return StandardCharsets.UTF_8;
        try {
            return Charset.forName(charset.group(1));
        } catch (IllegalCharsetNameException | UnsupportedCharsetException unknown) {
            return StandardCharsets.UTF_8;
        }
    }

    /** {@code type} in small letters and without its parameters, such as a charset. */
    public static String plain(String type) {
        int parameters = type.indexOf(';');
        return (parameters < 0 ? type : type.substring(0, parameters)).strip().toLowerCase(Locale.ROOT);
    }
}
