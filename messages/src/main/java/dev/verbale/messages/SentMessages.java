package dev.verbale.messages;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * Which messages were sent of a run, so that none is sent twice: a hidden file beside what was recorded, with a line for each. For one
 * process at a time.
 *
 * @since 0.2.0
 */
public final class SentMessages {

    private final Path file;

    /** @param file need not be there yet */
    public SentMessages(Path file) {
        this.file = file;
    }

    /** What tells a message from others: of which run, to whom, in which form. It says nothing of the address itself. */
    public static String key(String... parts) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (String part : parts) {
                digest.update(part.getBytes(StandardCharsets.UTF_8));
                digest.update((byte) 0);
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 16);
        } catch (NoSuchAlgorithmException missing) {
            throw new IllegalStateException("every JVM has SHA-256", missing);
        }
    }

    /** Whether it was sent. */
    public boolean has(String key) throws IOException {
        return Files.isRegularFile(file) && Files.readAllLines(file).contains(key);
    }

    /** It was taken. */
    public void add(String key) throws IOException {
        Files.writeString(file, key + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    }
}
