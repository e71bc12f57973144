package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import dev.verbale.hub.Uploads.Target;
import dev.verbale.hub.Uploads.Upload;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.jspecify.annotations.Nullable;

/**
 * Receives files: tus 1.0 with creation, creation-with-upload, creation-defer-length and checksum. Bytes of a request are taken as a whole or
 * not at all, so that its checksum counts.
 *
 * @see <a href="https://tus.io/protocols/resumable-upload">tus 1.0</a>
 */
final class TusAnswers {

    /** Of one request: it is in memory until it is in the database. */
    static final int LARGEST_BODY = 8 << 20;

    private static final String VERSION = "1.0.0";
    private static final String OFFSET = "Upload-Offset";
    private static final String BYTES = "application/offset+octet-stream";
    /** From projects/PROJECT/runs/RUN/parts/PART/files: a proxy may have put more before it all. */
    private static final String UP_TO_API = "../".repeat(6);

    private static final int LARGEST_MANIFEST = 64 << 20;
    private static final int MAX_PATH = 600;
    private static final int MAX_PART_OF_PATH = 255;
    private static final int CHECKSUM_MISMATCH = 460;

    /** What a system takes for something else, and what the hub makes itself. */
    private static final Pattern ODD_PATH =
            Pattern.compile(".*[\\p{Cntrl}\\\\].*|(?:page|shards)(?:/.*)?", Pattern.DOTALL);

    private final Uploads uploads;
    private final Mirror mirror;

    /** @param mirror is told of what came */
    TusAnswers(Uploads uploads, Mirror mirror) {
        this.uploads = uploads;
        this.mirror = mirror;
    }

    static void options(Response response) throws IOException {
        response.getHeaders().put("Tus-Resumable", VERSION);
        response.getHeaders().put("Tus-Version", VERSION);
        response.getHeaders().put("Tus-Extension", "creation,creation-with-upload,creation-defer-length,checksum");
        response.getHeaders().put("Tus-Checksum-Algorithm", "sha256");
        response.getHeaders().put("Tus-Max-Size", Uploads.MAX_SIZE);
        HubAnswer.nothing(response, 204);
    }

    void create(Asked asked) throws IOException, Refused {
        Request request = asked.request();
        Response response = asked.response();
        String run = asked.name("run");
        String part = asked.name("part");
        speaksTus(request, response);
        if (!Projects.isName(asked.project())) throw new Refused(422, "no project can be called that");
        if (!Projects.isName(run) || !Projects.isName(part))
            throw new Refused(422, "a run and its parts are called by letters, digits, '.', '_' and '-', at most 100");
        String path = fileName(request.getHeaders().get("Upload-Metadata"));
        String type = request.getHeaders().get("Content-Type");
        byte[] first = BYTES.equals(type) ? body(request) : new byte[0];
        Upload upload = uploads.create(new Target(asked.project(), run, part, path), first);
        mirror.changed();
        response.getHeaders().put("Location", UP_TO_API + "uploads/" + upload.id());
        response.getHeaders().put(OFFSET, upload.size());
        HubAnswer.nothing(response, upload.isNew() ? 201 : 200);
    }

    void head(Asked asked) throws IOException, Refused {
        Response response = asked.response();
        speaksTus(asked.request(), response);
        Upload upload = uploads.find(id(asked)).orElseThrow(TusAnswers::missing);
        if (!asked.access().may(Role.SEND, upload.project())) throw missing();
        response.getHeaders().put(OFFSET, upload.size());
        response.getHeaders().put("Upload-Defer-Length", "1");
        response.getHeaders().put("Cache-Control", "no-store");
        HubAnswer.nothing(response, 200);
    }

    void patch(Asked asked) throws IOException, Refused {
        Request request = asked.request();
        Response response = asked.response();
        long id = id(asked);
        speaksTus(request, response);
        if (!uploads.project(id)
                .filter(project -> asked.access().may(Role.SEND, project))
                .isPresent()) throw missing();
        if (!BYTES.equals(request.getHeaders().get("Content-Type"))) throw new Refused(415, "bytes come as " + BYTES);
        long at = number(request.getHeaders().get(OFFSET));
        byte[] bytes = body(request);
        long size = uploads.append(id, at, bytes);
        mirror.changed();
        response.getHeaders().put(OFFSET, size);
        HubAnswer.nothing(response, size == at + bytes.length ? 204 : 409);
    }

    /** Ends a part: what its sender says that there is of it is compared with what came. */
    void end(Asked asked) throws IOException, Refused {
        String manifest;
        try (InputStream in = Content.Source.asInputStream(asked.request())) {
            byte[] bytes = in.readNBytes(LARGEST_MANIFEST + 1);
            if (bytes.length > LARGEST_MANIFEST) throw new Refused(413, "the list of files is too long");
            manifest = new String(bytes, StandardCharsets.UTF_8);
        }
        Map<String, String> hashes = new LinkedHashMap<>();
        for (String line : manifest.lines().toList()) {
            if (!line.matches("[0-9a-f]{64} {2}.+"))
                throw new Refused(400, "each line is a hash, two blanks and a path");
            hashes.put(line.substring(66), line.substring(0, 64));
        }
        List<String> wrong = uploads.end(asked.project(), asked.name("run"), asked.name("part"), hashes);
        HubAnswer.text(
                asked.response(), wrong.isEmpty() ? 200 : 409, wrong.isEmpty() ? "whole" : String.join("\n", wrong));
    }

    private static long id(Asked asked) throws Refused {
        String upload = asked.name("upload");
        if (!upload.matches("\\d{1,18}")) throw missing();
        return Long.parseLong(upload);
    }

    private static Refused missing() {
        return new Refused(404, "there is no such upload");
    }

    private static void speaksTus(Request request, Response response) throws Refused {
        response.getHeaders().put("Tus-Resumable", VERSION);
        if (VERSION.equals(request.getHeaders().get("Tus-Resumable"))) return;
        response.getHeaders().put("Tus-Version", VERSION);
        throw new Refused(412, "files are received by tus " + VERSION);
    }

    /** As the metadata has it: pairs of a key and a value in base64, with commas between. */
    private static String fileName(@Nullable String metadata) throws Refused {
        for (String pair : String.valueOf(metadata).split(",")) {
            String[] one = pair.strip().split(" ", 2);
            if (!one[0].equals("filename") || one.length < 2) continue;
            String path;
            try {
                path = new String(Base64.getDecoder().decode(one[1].strip()), StandardCharsets.UTF_8);
            } catch (IllegalArgumentException broken) {
                break;
            }
            if (path.length() <= MAX_PATH && isPath(path)) return path;
            throw new Refused(422, "a file of a run cannot have that name");
        }
        throw new Refused(400, "Upload-Metadata has to say the filename, in base64");
    }

    private static boolean isPath(String path) {
        for (String part : path.split("/", -1)) {
            boolean isTooLong = part.getBytes(StandardCharsets.UTF_8).length > MAX_PART_OF_PATH;
            if (part.isEmpty() || part.equals(".") || part.equals("..") || isTooLong) return false;
        }
        return !ODD_PATH.matcher(path).matches();
    }

    private static long number(@Nullable String text) throws Refused {
        if (text == null || !text.matches("\\d{1,18}")) throw new Refused(400, OFFSET + " has to be a number of bytes");
        return Long.parseLong(text);
    }

    private static byte[] body(Request request) throws IOException, Refused {
        if (request.getLength() > LARGEST_BODY) throw tooLong();
        byte[] bytes;
        try (InputStream in = Content.Source.asInputStream(request)) {
            bytes = in.readNBytes(LARGEST_BODY + 1);
        }
        if (bytes.length > LARGEST_BODY) throw tooLong();
        String checksum = request.getHeaders().get("Upload-Checksum");
        if (checksum == null) return bytes;
        String[] parts = checksum.strip().split("\\s+");
        if (parts.length != 2 || !parts[0].equals("sha256")) throw new Refused(400, "checksums are those of sha256");
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(bytes);
            if (!Base64.getEncoder().encodeToString(hash).equals(parts[1]))
                throw new Refused(CHECKSUM_MISMATCH, "what came is not what was sent");
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
        return bytes;
    }

    private static Refused tooLong() {
        return new Refused(413, "a request has " + LARGEST_BODY + " bytes at the most; send the rest in another");
    }
}
