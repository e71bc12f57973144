package dev.verbale.testng;

import dev.verbale.testing.Launched;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** The versions of TestNG that the adapter is tested with. */
final class Versions {

    private Versions() {}

    /** Empty for the one that the build has, else a folder of jars. */
    static List<String> all() {
        return Stream.concat(
                        Stream.of(""),
                        Stream.of(System.getProperty("other.testng.jars", "").split(","))
                                .filter(other -> !other.isBlank()))
                .toList();
    }

    /** For tests that only look at what is left behind. */
    static Launched once(String version, Class<?>... samples) throws Exception {
        return Launched.once(
                classPath(version),
                Launch.class,
                Stream.of(samples).map(Class::getName).toArray(String[]::new));
    }

    static Launched jvm(Path root, String version, String... launched) throws Exception {
        return Launched.jvm(root, classPath(version), List.of(), Launch.class, launched);
    }

    private static List<String> classPath(String version) throws IOException {
        if (version.isEmpty()) return Launched.classPath();
        try (Stream<Path> jars = Files.list(Path.of(version))) {
            return Stream.concat(
                            jars.map(Path::toString),
                            Launched.classPath().stream().filter(entry -> !entry.contains("testng-7")))
                    .toList();
        }
    }
}
