package dev.verbale.messages;

import dev.verbale.folder.Sha256;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Which messages were sent of a run, so that none is sent twice: a hidden file beside what was recorded, with a line for each. For one
 * process at a time.
 *
 * @since 0.2.0
 */
public final class SentMessages {

    private static final int KEY = 32;

    private final Path file;

    /** @param file need not be there yet */
    public SentMessages(Path file) {
        this.file = file;
    }

    /** What tells a message from others: of which run, to whom, in which form. It says nothing of the address itself. */
    public static String key(String... parts) {
        return Sha256.of(String.join("\0", parts).getBytes(StandardCharsets.UTF_8))
                .substring(0, KEY);
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
