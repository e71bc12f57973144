package dev.verbale.packing;

import dev.verbale.journal.PlainFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * That a bag has the files that it says it has, and no others: a run of which a journal is missing looks like one that has fewer tests. What is
 * in the files is seen when they are read, by the sums of the archive, and by whoever verifies the bag.
 */
final class BagCheck {

    private BagCheck() {}

    /** @throws IOException where one of the bags right below {@code root} is not whole */
    static void of(Path archive, Path root) throws IOException {
        List<Path> folders;
        try (Stream<Path> all = Files.list(root)) {
            folders = all.filter(Files::isDirectory).toList();
        }
        for (Path folder : folders)
            if (Files.exists(folder.resolve("bagit.txt")) || Files.exists(folder.resolve("manifest-sha256.txt")))
                check(archive, folder);
    }

    private static void check(Path archive, Path bag) throws IOException {
        Set<String> named = new HashSet<>();
        try (var lines = new BufferedReader(
                new InputStreamReader(PlainFile.open(bag.resolve("manifest-sha256.txt")), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine())
                if (line.length() > 66) named.add(decoded(line.substring(66)));
        } catch (IOException unreadable) {
            throw PackedRun.refused(archive, "its manifest cannot be read", String.valueOf(unreadable.getMessage()));
        }
        try (Stream<Path> all = Files.walk(bag.resolve("data"))) {
            for (Path file : (Iterable<Path>) all.filter(Files::isRegularFile)::iterator) {
                String name = bag.relativize(file).toString();
                if (!named.remove(name)) throw damaged(archive, name + " is in it, and not in its manifest");
            }
        }
        if (!named.isEmpty()) throw damaged(archive, named.iterator().next() + " is in its manifest, and not in it");
    }

    private static String decoded(String path) {
        return path.replace("%0D", "\r").replace("%0A", "\n").replace("%25", "%");
    }

    private static IOException damaged(Path archive, String what) {
        return PackedRun.refused(archive, "it is damaged", what);
    }
}
