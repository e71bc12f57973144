package dev.verbale.report;

import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Stream;

/**
 * The folder of a page. A list in it names every file that the page is made of: nothing else in there is ours to replace or to
 * remove, such as the name of a site or somebody's notes.
 */
final class PageFolder {

    private static final String LIST = "data/files.txt";
    private static final int LONGEST_LIST = 256 << 20;

    private PageFolder() {}

    /** @throws FileAlreadyExistsException where {@code target} is no folder, or one that is not empty and has no page of ours */
    static void check(Path target) throws IOException {
        if (!Files.exists(target, LinkOption.NOFOLLOW_LINKS)) return;
        if (Files.isSymbolicLink(target)) throw refused(target, "is a link, and what it leads to would be replaced");
        if (!Files.isDirectory(target)) throw refused(target, "is a file");
        if (PlainFile.isThere(target.resolve(LIST))) return;
        try (Stream<Path> inside = Files.list(target)) {
            if (inside.findAny().isPresent())
                throw refused(target, "holds files that are no page of Verbale's, and they would be lost");
        }
    }

    private static FileAlreadyExistsException refused(Path target, String why) {
        return new FileAlreadyExistsException(target.toString(), null, why);
    }

    /** An empty folder beside the page's, with ordinary permissions: a page is for whoever gets it. */
    static Path fresh(Path parent) throws IOException {
        return Files.createDirectory(parent.resolve(".verbale-page-" + UUID.randomUUID()));
    }

    /** Writes down which files {@code page} is made of. */
    static void writeList(Path page) throws IOException {
        List<String> names = new ArrayList<>();
        for (Path file : files(page)) names.add(name(page, file));
        names.add(LIST);
        names.sort(Comparator.naturalOrder());
        Files.write(page.resolve(LIST), names, StandardCharsets.UTF_8);
    }

    /**
     * Puts {@code fresh} in the place of the page in {@code target}. What else is in there comes along.
     *
     * @throws FileAlreadyExistsException where one of the new files has the name of something that is not ours
     */
    static void replace(Path target, Path fresh) throws IOException {
        if (!Files.exists(target, LinkOption.NOFOLLOW_LINKS)) {
            Files.move(fresh, target);
            return;
        }
        Set<String> ours = listed(target);
        List<Path> others = new ArrayList<>();
        for (Path file : files(target)) if (!ours.contains(name(target, file))) others.add(file);
        for (Path other : others)
            if (Files.exists(fresh.resolve(name(target, other)), LinkOption.NOFOLLOW_LINKS))
                throw refused(other, "is not of the page that is there, and the new page has a file of that name");
        Path old = target.resolveSibling(fresh.getFileName() + "-before");
        Files.move(target, old);
        try {
            Files.move(fresh, target);
        } catch (IOException notMoved) {
            Files.move(old, target);
            throw notMoved;
        }
        for (Path other : others) {
            Path kept = target.resolve(name(target, other));
            Files.createDirectories(kept.getParent());
            Files.move(old.resolve(name(target, other)), kept);
        }
        deleteListed(old, ours);
    }

    /** Only what the list names, and folders that are empty then: whatever it says, nothing else goes. */
    private static void deleteListed(Path old, Set<String> ours) throws IOException {
        for (Path file : files(old)) if (ours.contains(name(old, file))) Files.delete(file);
        try (Stream<Path> all = Files.walk(old)) {
            for (Path folder : all.filter(Files::isDirectory)
                    .sorted(Comparator.reverseOrder())
                    .toList()) {
                try (Stream<Path> inside = Files.list(folder)) {
                    if (inside.findAny().isPresent()) continue;
                }
                Files.delete(folder);
            }
        }
    }

    private static Set<String> listed(Path target) throws IOException {
        Set<String> names = new TreeSet<>();
        Path list = target.resolve(LIST);
        if (!PlainFile.isThere(list)) return names;
        String text = new String(PlainFile.bytes(list, LONGEST_LIST), StandardCharsets.UTF_8);
        for (String name : text.lines().toList()) {
            try {
                Path file = target.resolve(name).normalize();
                if (file.startsWith(target) && PlainFile.isThere(file)) names.add(name);
            } catch (InvalidPathException none) {
                // whoever wrote that line, it names no file
            }
        }
        return names;
    }

    /** Everything in {@code folder} but folders; links as what they are. */
    private static List<Path> files(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(file -> !Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS))
                    .sorted()
                    .toList();
        }
    }

    private static String name(Path folder, Path file) {
        return folder.relativize(file).toString().replace('\\', '/');
    }
}
