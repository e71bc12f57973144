package dev.verbale.lake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** Those of the documentation. */
final class Questions {

    private static final Path FOLDER = Path.of("../docs/questions");

    private Questions() {}

    static List<String> names() throws IOException {
        try (Stream<Path> files = Files.list(FOLDER)) {
            return files.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(".sql"))
                    .sorted()
                    .toList();
        }
    }

    static String read(String name) throws IOException {
        return Files.readString(FOLDER.resolve(name));
    }
}
