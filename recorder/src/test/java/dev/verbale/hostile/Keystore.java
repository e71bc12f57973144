package dev.verbale.hostile;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;

/** A certificate that nobody trusts, and its key. */
public final class Keystore {

    /** Opens it. */
    public static final String WORD = "watering-can";

    /** Names the one that it holds. */
    public static final String ALIAS = "orto";

    private Keystore() {}

    /** Makes a file of PKCS #12 with the JDK's own tool. */
    public static void make(Path file, String name) throws IOException, InterruptedException {
        Process making = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-J-XX:TieredStopAtLevel=1",
                        "-J-XX:+UseSerialGC",
                        "-genkeypair",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=" + name,
                        "-ext",
                        "san=ip:127.0.0.1",
                        "-alias",
                        ALIAS,
                        "-keystore",
                        file.toString(),
                        "-storepass",
                        WORD,
                        "-storetype",
                        "PKCS12"))
                .redirectErrorStream(true)
                .start();
        String output = new String(making.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (making.waitFor() != 0) throw new IOException(output);
    }
}
