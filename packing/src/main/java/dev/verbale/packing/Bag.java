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

    /** What cannot become smaller is not tried to: known by the file's name, or else by how it begins. */
    static boolean isDense(String file, InputStream start) throws IOException {
        return isDense(file, start.readNBytes(BUFFER));
    }

    private static boolean isDense(String file, byte[] start) {
        String type = MediaTypes.ofFile(file);
        return type.startsWith("image/") && !type.equals("image/svg+xml")
                || type.startsWith("video/")
                || type.contains("zip")
                || start.length == BUFFER && isDense(start);
    }

    /** Whether a quick try saves less than a twentieth: to deflate what was deflated takes ten times as long as to copy it. */
    private static boolean isDense(byte[] bytes) {
        var deflater = new Deflater(Deflater.BEST_SPEED, true);
        try {
            deflater.setInput(bytes);
            deflater.finish();
            byte[] out = new byte[BUFFER - BUFFER / 20];
            int size = 0;
            while (!deflater.finished() && size < out.length) size += deflater.deflate(out, size, out.length - size);
            return !deflater.finished();
        } finally {
            deflater.end();
        }
    }

    /**
     * Adds a file.
     *
     * @param path below {@code data}, with forward slashes
     */
    void add(String path, InputStream in) throws IOException {
        long before = bytes;
        payload.put("data/" + path, write("data/" + path, in));
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
        tags.put(file, write(file, in));
        bytes = before; // it is no payload
    }

    private String write(String path, InputStream in) throws IOException {
        MessageDigest digest = Sha256.digest();
        var entry = new ZipEntry(name + "/" + path);
        entry.setTimeLocal(NO_TIME);
        int read = in.readNBytes(buffer, 0, BUFFER);
        boolean isDense = isDense(path, read == BUFFER ? buffer : new byte[0]);
        zip.setLevel(isDense ? Deflater.NO_COMPRESSION : Deflater.DEFAULT_COMPRESSION);
        zip.putNextEntry(entry);
        for (; read > 0; read = in.read(buffer)) {
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
