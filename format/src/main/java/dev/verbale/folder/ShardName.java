package dev.verbale.folder;

import dev.verbale.journal.PlainFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * What a run is called inside of one that it is joined to: a part of a joined run keeps its name, and any other is told from its namesakes
 * by the first line of its first journal. It is the same as soon as that line is there, and stays.
 *
 * @since 0.2.0
 */
public final class ShardName {

    private ShardName() {}

    /** Of {@code run}. */
    public static String of(RunFolder run) throws IOException {
        Path around = run.path().toAbsolutePath().normalize().getParent();
        if (around != null && String.valueOf(around.getFileName()).equals("shards")) return run.name();
        MessageDigest hash;
        try {
            hash = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJvmHasIt) {
            throw new IllegalStateException(everyJvmHasIt);
        }
        for (Path journal : run.journalFiles()) {
            if (!PlainFile.isThere(journal)) continue;
            hash.update((journal.getFileName() + "\n" + firstLine(journal) + "\n").getBytes(StandardCharsets.UTF_8));
            break; // the first JVM's: others may come while the run goes on
        }
        return run.name() + "_" + HexFormat.of().formatHex(hash.digest(), 0, 4);
    }

    private static String firstLine(Path journal) throws IOException {
        try (InputStream in = PlainFile.open(journal);
                var reader = new BufferedReader(new InputStreamReader(in, StandardCharsets.ISO_8859_1))) {
            String line = reader.readLine();
            return line == null ? "" : line;
        }
    }
}
