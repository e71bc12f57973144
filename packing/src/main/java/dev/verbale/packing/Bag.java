package dev.verbale.packing;

import dev.verbale.folder.MediaTypes;
import dev.verbale.folder.Sha256;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.LocalDateTime;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A bag that is written into a ZIP archive while its files come, so that no file has to be held. The same files give the same bytes.
 *
 * @see <a href="https://www.rfc-editor.org/rfc/rfc8493">RFC 8493</a>
 */
final class Bag {

    /** The first moment that the format of archives knows: a time of now would make each pack another one. */
    private static final LocalDateTime NO_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

    private static final int BUFFER = 1 << 16;

    private final ZipOutputStream zip;
    private final String name;
    private final Map<String, String> payload = new TreeMap<>();
    private final Map<String, String> tags = new TreeMap<>();
    private final byte[] buffer = new byte[BUFFER];
    private long bytes;

    /** @param name of the one folder that everything is in */
    Bag(OutputStream out, String name) {
        this.zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
        this.name = name;
    }

    /** What cannot become smaller is not tried to. */
    static int level(String file) {
        String type = MediaTypes.ofFile(file);
        boolean isDense = type.startsWith("image/") && !type.equals("image/svg+xml")
                || type.startsWith("video/")
                || type.contains("zip");
        return isDense ? Deflater.NO_COMPRESSION : Deflater.DEFAULT_COMPRESSION;
    }

    /**
     * Adds a file.
     *
     * @param path below {@code data}, with forward slashes
     */
    void add(String path, InputStream in) throws IOException {
        long before = bytes;
        payload.put("data/" + path, write("data/" + path, in, level(path)));
        if (bytes < before) throw new IOException(path + " is longer than an archive can be");
    }

    int files() {
        return payload.size();
    }

    /** How many bytes were packed, before they became smaller. */
    long bytes() {
        return bytes;
    }

    /** Writes what the bag says of itself. Nothing can be added any more. */
    void end(Map<String, String> about) throws IOException {
        var info = new LinkedHashMap<>(about);
        info.put("Payload-Oxum", bytes + "." + payload.size());
        var lines = new StringBuilder();
        info.forEach((label, value) -> lines.append(label)
                .append(": ")
                .append(value.replaceAll("\\s+", " "))
                .append('\n'));
        tag("bagit.txt", "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n");
        tag("bag-info.txt", lines.toString());
        tag("manifest-sha256.txt", manifest(payload));
        tag("tagmanifest-sha256.txt", manifest(tags));
        zip.finish();
    }

    private void tag(String file, String text) throws IOException {
        InputStream in = new java.io.ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
        long before = bytes;
        tags.put(file, write(file, in, Deflater.DEFAULT_COMPRESSION));
        bytes = before; // it is no payload
    }

    private String write(String path, InputStream in, int level) throws IOException {
        MessageDigest digest = Sha256.digest();
        var entry = new ZipEntry(name + "/" + path);
        entry.setTimeLocal(NO_TIME);
        zip.setLevel(level);
        zip.putNextEntry(entry);
        for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
            zip.write(buffer, 0, read);
            digest.update(buffer, 0, read);
            bytes += read;
        }
        zip.closeEntry();
        return HexFormat.of().formatHex(digest.digest());
    }

    private static String manifest(Map<String, String> files) {
        var lines = new StringBuilder();
        files.forEach((path, sum) ->
                lines.append(sum).append("  ").append(encoded(path)).append('\n'));
        return lines.toString();
    }

    /** As a manifest has it: RFC 8493, 2.1.3. */
    private static String encoded(String path) {
        return path.replace("%", "%25").replace("\r", "%0D").replace("\n", "%0A");
    }
}
