package dev.verbale.report;

import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.Locale;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * {@code index.html}: the page's one script and its styles are inside, and its policy lets no other script run but this one, by its
 * hash, and what it loads itself. Styles are allowed as they are: they run nothing, and a page source that is drawn keeps its own.
 */
final class IndexFile {

    private static final Pattern PART = Pattern.compile("\\[(policy|style|first|script|plain|blocks)]");

    /** For files in a folder; {@code file:} since a page that was opened from disk has no origin that {@code 'self'} could mean. */
    private static final String IN_A_FOLDER = "default-src 'none'; script-src 'sha256-%s' 'strict-dynamic';"
            + " style-src 'unsafe-inline'; img-src 'self' file: data:; media-src 'self' file:; font-src data:;"
            + " connect-src 'self'; base-uri 'none'; form-action 'none'";

    /** Nothing is loaded: images and videos are made of what is inside. */
    private static final String ALONE = "default-src 'none'; script-src 'sha256-%s'; style-src 'unsafe-inline';"
            + " img-src blob: data:; media-src blob:; font-src data:; base-uri 'none'; form-action 'none'";

    private final String plain;
    private final PageLook look;

    /** @param plain what who has no JavaScript reads, as HTML */
    IndexFile(String plain, PageLook look) {
        this.plain = plain;
        this.look = look;
    }

    /** Writes something in between. */
    @FunctionalInterface
    interface Blocks {
        void write(OutputStream out) throws IOException;
    }

    void write(OutputStream out) throws IOException {
        write(out, "<!doctype html>\n");
        write(out, IN_A_FOLDER, nothing -> {}, nothing -> {});
    }

    /**
     * @param begin what such a file begins with
     * @param first what the page shows first, before its script
     * @param blocks the rest of its data
     */
    void writeAlone(OutputStream out, String begin, Blocks first, Blocks blocks) throws IOException {
        write(out, begin);
        String withoutImages =
                plain.replaceAll("<p><img [^>]*></p>\n", ""); // they lie beside a page, and this one is alone
        new IndexFile(withoutImages, look).write(out, ALONE, first, blocks);
    }

    private void write(OutputStream out, String policy, Blocks first, Blocks blocks) throws IOException {
        String template = own("index.html");
        String script = own("verbale.js");
        if (script.toLowerCase(Locale.ROOT).contains("</script"))
            throw new IllegalStateException("the page's script would end too early in its page");
        int from = 0;
        Matcher parts = PART.matcher(template);
        for (MatchResult part : (Iterable<MatchResult>) parts.results()::iterator) {
            write(out, template.substring(from, part.start()));
            switch (part.group(1)) {
                case "policy" -> write(out, String.format(policy, hash(script)));
                case "style" -> write(out, own("verbale.css") + accent());
                case "script" -> write(out, script);
                case "plain" -> write(out, plain);
                case "first" -> first.write(out);
                default -> blocks.write(out);
            }
            from = part.end();
        }
        write(out, template.substring(from));
    }

    private String accent() {
        Accent accent = look.accent();
        if (accent == null) return "";
        return """
                :root { --link: %1$s; --margin: %1$s; }
                :root[data-theme="dark"] { --link: %2$s; --margin: %2$s; }
                @media (prefers-color-scheme: dark) { :root:not([data-theme="light"]) { --link: %2$s; --margin: %2$s; } }
                """.formatted(accent.light(), accent.dark());
    }

    private static void write(OutputStream out, String text) throws IOException {
        out.write(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String hash(String script) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(script.getBytes(StandardCharsets.UTF_8));
            return Base64.getEncoder().encodeToString(hash);
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
    }

    /** Line ends as an HTML parser makes them: the hash is of what it hands to the script's element. */
    static String own(String file) throws IOException {
        try (InputStream in = IndexFile.class.getResourceAsStream("page/" + file)) {
            if (in == null) throw new FileNotFoundException("page/" + file + " is missing in this build of Verbale");
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).replace("\r\n", "\n");
        }
    }
}
