package dev.verbale.folder;

import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * Sums by SHA-256 (FIPS 180-4), in small hexadecimal digits.
 *
 * @since 0.2.0
 */
public final class Sha256 {

    private static final int BUFFER = 1 << 16;

    private Sha256() {}

    /** A fresh one, for who sums up what passes. */
    public static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException missing) {
            throw new IllegalStateException("every JVM has SHA-256", missing);
        }
    }

    /** Of {@code bytes}. */
    public static String of(byte[] bytes) {
        return HexFormat.of().formatHex(digest().digest(bytes));
    }

    /**
     * Of a file, which is not held in memory.
     *
     * @throws IOException where it cannot be read, or is no regular file
     */
    public static String of(Path file) throws IOException {
        MessageDigest digest = digest();
        byte[] buffer = new byte[BUFFER];
        try (InputStream in = PlainFile.open(file)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) digest.update(buffer, 0, read);
        }
        return HexFormat.of().formatHex(digest.digest());
    }
}
