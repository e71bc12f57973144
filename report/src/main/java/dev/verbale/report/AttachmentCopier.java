package dev.verbale.report;

import dev.verbale.folder.MediaTypes;
import dev.verbale.journal.PlainFile;
import dev.verbale.json.WellFormedText;
import dev.verbale.results.Entry;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Brings attachments into the page's folder, so that it loses nothing when it is handed on without the run.
 *
 * <p>Only images and videos that cannot run anything keep their extension. Everything else gets {@code .txt} behind its
 * name: a page source that somebody opens by hand must not run as a page. Text is put into a script file too, since a page
 * that was opened from disk may not fetch.
 */
final class AttachmentCopier {

    static final Set<String> HARMLESS =
            Set.of("image/png", "image/jpeg", "image/gif", "image/webp", "video/webm", "video/mp4");

    /** What the page shows of one text; a longer one is cut there, says so, and is whole beside the page. */
    private static final int LONGEST_TEXT = 2_000_000;

    private static final int ID_BYTES = 8;

    private final Path run;
    private final Path page;
    private final String prefix;
    /** Each is copied once, by whoever comes first. */
    private final Set<String> copied = ConcurrentHashMap.newKeySet();

    /**
     * @param run its folder
     * @param prefix a word that the files of this run have in their names; empty for the page's own run
     */
    AttachmentCopier(Path run, Path page, String prefix) {
        this.run = run;
        this.page = page;
        this.prefix = prefix;
    }

    private String attachments() {
        return prefix.isEmpty() ? "attachments/" : "attachments/" + prefix + "/";
    }

    /** Copies the file {@code stored} and writes where it is now. One that is missing in the run is nowhere. */
    void copy(@Nullable Path stored, String mediaType, JsonGenerator json) throws IOException {
        if (stored == null) return;
        String name = name(run, stored, mediaType);
        Path copy = page.resolve(attachments() + name);
        Files.createDirectories(copy.getParent());
        boolean isFirst = copied.add(name);
        if (isFirst && !Files.exists(copy)) {
            try (InputStream in = PlainFile.open(stored)) { // no link, whatever it has become since it was read
                Files.copy(in, copy);
            }
        }
        json.writeStringProperty("href", attachments() + encoded(name));
        if (!MediaTypes.isText(mediaType)) return;
        String id = prefix + sha256(name);
        if (isFirst) text(stored, id);
        json.writeStringProperty("text", id);
    }

    /** Where the copy of a file of the page's own run is, as an address in the page. */
    static String address(Path run, Path stored, String mediaType) {
        return "attachments/" + encoded(name(run, stored, mediaType));
    }

    private static String name(Path run, Path stored, String mediaType) {
        Path root = run.toAbsolutePath().normalize();
        String name = root.relativize(stored).toString().replace('\\', '/');
        boolean harmless = HARMLESS.contains(mediaType) && HARMLESS.contains(MediaTypes.ofFile(name));
        return harmless ? name : name + ".txt";
    }

    /** Writes the captions of a video beside its copy, and where they are. */
    void writeCaptions(Entry.AttachmentEntry video, String captions, JsonGenerator json) throws IOException {
        Path stored = video.file();
        if (stored == null) return;
        String name = run.toAbsolutePath().normalize().relativize(stored) + ".vtt";
        name = name.replace('\\', '/');
        Path beside = page.resolve(attachments() + name);
        Files.createDirectories(beside.getParent());
        Files.writeString(beside, captions);
        json.writeStringProperty("captions", attachments() + encoded(name));
    }

    private void text(Path stored, String id) throws IOException {
        byte[] bytes;
        try (InputStream in = PlainFile.open(stored)) {
            bytes = in.readNBytes(LONGEST_TEXT);
        }
        boolean cut = Files.size(stored) > bytes.length;
        Path folder = Files.createDirectories(page.resolve("data/texts"));
        ScriptFile.write(folder.resolve(id + ".js"), "text", id, json -> {
            json.writeStartObject();
            json.writeStringProperty("text", WellFormedText.of(new String(bytes, StandardCharsets.UTF_8)));
            if (cut) json.writeNumberProperty("cutAt", LONGEST_TEXT);
            json.writeEndObject();
        });
    }

    /** Short, the same in each reading, and good for a file's name, whatever {@code name} is. */
    private static String sha256(String name) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(name.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, ID_BYTES);
        } catch (NoSuchAlgorithmException missing) {
            throw new IllegalStateException("every JVM has SHA-256", missing);
        }
    }

    static String encoded(String path) {
        return Arrays.stream(path.split("/"))
                .map(part -> URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20"))
                .collect(Collectors.joining("/"));
    }
}
