package dev.verbale.sending;

import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A file of a run on its way: what is new in it goes behind what the hub has. By tus 1.0 with creation, creation-with-upload,
 * creation-defer-length and checksum.
 *
 * @see <a href="https://tus.io/protocols/resumable-upload">tus 1.0</a>
 */
final class SentFile {

    /** So much goes in one request, so that a cut loses no more. */
    private static final int PIECE = 4 << 20;

    private static final String GONE = "is gone";
    private static final String OFFSET = "Upload-Offset";

    private final String name;
    private final Path file;
    private final MessageDigest digest;
    private long sent;
    private @Nullable URI upload;
    private @Nullable String failed;

    /** @param name below the run's folder, with forward slashes */
    SentFile(String name, Path file) {
        this.name = name;
        this.file = file;
        this.digest = Sha256.digest();
    }

    String name() {
        return name;
    }

    long sent() {
        return sent;
    }

    /** Why it is not there as it is here; null where nothing is known against it. */
    @Nullable
    String failed() {
        return failed;
    }

    /** Whether it went before anything of it was sent. */
    boolean isForgotten() {
        return upload == null && GONE.equals(failed);
    }

    /** Whether there is more of it here than was sent, as far as its size says. */
    boolean isNew() {
        if (upload == null) return true;
        try {
            return Files.size(file) != sent;
        } catch (IOException gone) {
            return true; // sending it says why
        }
    }

    /** Of what was sent, in small hexadecimal digits. */
    String sha256() {
        return Sha256.hex(digest);
    }

    /**
     * Sends what is new.
     *
     * @param creation where the hub makes uploads of this part of the run
     * @return how many bytes
     */
    long send(HubConnection hub, URI creation) throws IOException, InterruptedException {
        if (failed != null) return 0;
        long before = sent;
        try (InputStream in = PlainFile.open(file)) {
            in.skipNBytes(sent);
            boolean isNew = upload == null;
            for (byte[] piece = in.readNBytes(PIECE); piece.length > 0 || isNew; piece = in.readNBytes(PIECE)) {
                if (isNew) create(hub, creation, piece);
                else append(hub, piece);
                isNew = false;
                if (piece.length < PIECE) break;
            }
        } catch (NoSuchFileException gone) {
            failed = GONE;
        } catch (java.io.EOFException shorter) {
            failed = "became shorter while it was sent";
        } catch (HubRefused refused) {
            if (refused.status() != 413 && refused.status() != 422) throw refused; // those are about this file alone
            failed = String.valueOf(refused.getMessage());
        }
        return sent - before;
    }

    private void create(HubConnection hub, URI creation, byte[] piece) throws IOException, InterruptedException {
        String encoded = Base64.getEncoder().encodeToString(name.getBytes(StandardCharsets.UTF_8));
        HttpResponse<String> answer = hub.ask(
                "POST",
                creation,
                headers(piece, "Upload-Defer-Length", "1", "Upload-Metadata", "filename " + encoded),
                BodyPublishers.ofByteArray(piece),
                Set.of(201, 200));
        upload = creation.resolve(answer.headers().firstValue("Location").orElseThrow(() -> odd("says no Location")));
        taken(hub, piece, offset(answer));
    }

    private void append(HubConnection hub, byte[] piece) throws IOException, InterruptedException {
        if (upload == null) throw new IllegalStateException("it was not created");
        HttpResponse<String> answer = hub.ask(
                "PATCH",
                upload,
                headers(piece, OFFSET, String.valueOf(sent)),
                BodyPublishers.ofByteArray(piece),
                Set.of(204, 409));
        if (answer.statusCode() == 409)
            answer = hub.ask("HEAD", upload, headers(), BodyPublishers.noBody(), Set.of(200));
        taken(hub, piece, offset(answer));
    }

    /** An answer may have been lost, or somebody sent this file before: what the hub has already is only counted. */
    private void taken(HubConnection hub, byte[] piece, long there) throws IOException, InterruptedException {
        long here = sent + piece.length;
        if (there < sent) {
            failed = "the hub has " + there + " bytes of it, and had " + sent;
            return;
        }
        int known = (int) Math.min(piece.length, there - sent);
        digest.update(piece, 0, known);
        sent += known;
        if (there < here) append(hub, java.util.Arrays.copyOfRange(piece, known, piece.length));
        else if (there > here) skipTo(there);
    }

    private void skipTo(long there) throws IOException {
        if (Files.size(file) < there) {
            failed = "the hub has " + there + " bytes of it, and here are " + Files.size(file);
            return;
        }
        try (InputStream in = PlainFile.open(file)) {
            in.skipNBytes(sent);
            byte[] buffer = new byte[1 << 16];
            while (sent < there) {
                int read = in.read(buffer, 0, (int) Math.min(buffer.length, there - sent));
                if (read < 0) throw new java.io.EOFException();
                digest.update(buffer, 0, read);
                sent += read;
            }
        }
    }

    private static Map<String, String> headers(byte[] piece, String... more) {
        MessageDigest ofPiece = Sha256.digest();
        ofPiece.update(piece);
        Map<String, String> headers = headers(more);
        headers.put("Content-Type", "application/offset+octet-stream");
        headers.put("Upload-Checksum", "sha256 " + Base64.getEncoder().encodeToString(ofPiece.digest()));
        return headers;
    }

    private static Map<String, String> headers(String... more) {
        Map<String, String> headers = new java.util.LinkedHashMap<>();
        headers.put("Tus-Resumable", "1.0.0");
        for (int i = 0; i < more.length; i += 2) headers.put(more[i], more[i + 1]);
        return headers;
    }

    private static long offset(HttpResponse<String> answer) throws IOException {
        try {
            return Long.parseLong(answer.headers().firstValue(OFFSET).orElse(""));
        } catch (NumberFormatException none) {
            throw odd("says no " + OFFSET);
        }
    }

    private static IOException odd(String what) {
        return new IOException("What answers there is no hub: it " + what);
    }
}
