package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The hash that names what is stored, and stands for tokens (FIPS 180-4). */
final class Sha256 {

    private Sha256() {}

    static String of(String text) {
        return HexFormat.of().formatHex(digest().digest(text.getBytes(StandardCharsets.UTF_8)));
    }

    /** Of all that {@code content} gives, which {@code out} has then. */
    static String copy(InputStream content, OutputStream out) throws IOException {
        MessageDigest digest = digest();
        new DigestInputStream(content, digest).transferTo(out);
        return HexFormat.of().formatHex(digest.digest());
    }

    private static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
    }
}
