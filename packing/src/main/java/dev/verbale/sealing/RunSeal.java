package dev.verbale.sealing;

import dev.verbale.folder.RunFiles;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.Sha256;
import dev.verbale.folder.WholeFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Seals a run: writes the sum of each of its files, and signs that.
 *
 * @since 0.2.0
 */
public final class RunSeal {

    /** In the run's folder: a sum and a path on each line, as {@code sha256sum -c} reads them. */
    public static final String MANIFEST = "seal.sha256";

    /** Beside it: its signature, as {@code ssh-keygen -Y verify} reads it. */
    public static final String SIGNATURE = MANIFEST + ".sig";

    /** What a seal consists of. */
    public static final Set<String> FILES = Set.of(MANIFEST, SIGNATURE);

    /** What a signature is for, so that none for something else can be taken for one of a run (PROTOCOL.sshsig). */
    public static final String NAMESPACE = "verbale-run";

    static final String FIRST_LINE = "# Sealed by Verbale at ";

    private RunSeal() {}

    /**
     * Seals {@code run} as it is now. An earlier seal of it is replaced.
     *
     * @param key a file with an OpenSSH key, or with the public half of one that an agent holds; null for a seal without signature
     * @return how many files it is of
     * @throws IOException where something cannot be read or written, or not be signed; then there is no seal
     */
    public static int seal(RunFolder run, @Nullable Path key) throws IOException {
        var text = new StringBuilder(FIRST_LINE + Instant.now().truncatedTo(ChronoUnit.SECONDS) + "\n");
        Map<String, String> sums = sums(run);
        sums.forEach((path, sum) -> text.append(line(path, sum)).append('\n'));
        byte[] manifest = text.toString().getBytes(StandardCharsets.UTF_8);
        byte[] signature = key == null ? null : SshKeygen.sign(manifest, key);
        Path signed = run.path().resolve(SIGNATURE);
        Files.deleteIfExists(signed); // of an earlier one: it would be wrong beside this one
        write(run.path().resolve(MANIFEST), manifest);
        if (signature != null) write(signed, signature);
        return sums.size();
    }

    private static void write(Path file, byte[] bytes) throws IOException {
        WholeFile.write(file, fresh -> {
            Files.write(fresh, bytes, StandardOpenOption.CREATE_NEW);
            return true;
        });
    }

    /** By path, what the files of the run are now. */
    static Map<String, String> sums(RunFolder run) throws IOException {
        Map<String, String> sums = new TreeMap<>();
        for (Path file : RunFiles.of(run, FILES)) sums.put(run.nameInJournal(file), Sha256.of(file));
        return sums;
    }

    /** As {@code sha256sum} writes it: a name with a backslash or an end of a line has a backslash before its line. */
    private static String line(String path, String sum) {
        String escaped = path.replace("\\", "\\\\").replace("\n", "\\n").replace("\r", "\\r");
        return (escaped.equals(path) ? "" : "\\") + sum + "  " + escaped;
    }

    /** The path that a line is of, and its sum; null where it is none. */
    static Map.@Nullable Entry<String, String> read(String line) {
        boolean isEscaped = line.startsWith("\\");
        String rest = isEscaped ? line.substring(1) : line;
        if (!rest.matches("(?s)[0-9a-f]{64}  .+")) return null;
        String path = rest.substring(66);
        if (isEscaped)
            path = path.replace("\\\\", "\0")
                    .replace("\\n", "\n")
                    .replace("\\r", "\r")
                    .replace("\0", "\\");
        return Map.entry(path, rest.substring(0, 64));
    }
}
