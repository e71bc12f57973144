package dev.verbale.folder;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;

/**
 * The files that a run consists of: what was recorded, and nothing that came of it or is at work. No page, no locks, nothing whose name begins
 * with a dot, which is being written; and no links.
 *
 * @since 0.2.0
 */
public final class RunFiles {

    private static final Set<String> LEFT_OUT = Set.of("page", "page.html", "writers.lock", "senders.lock");

    private RunFiles() {}

    /**
     * Those of {@code folder} and of the runs that it was joined of, in the order of their names.
     *
     * @param but names of folders and files right below {@code folder} that are not wanted either
     * @throws IOException where a folder cannot be listed
     */
    public static List<Path> of(RunFolder folder, Set<String> but) throws IOException {
        var found = new TreeMap<String, Path>(Comparator.naturalOrder());
        Files.walkFileTree(folder.path(), new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path one, BasicFileAttributes attributes) {
                return isWanted(one) ? FileVisitResult.CONTINUE : FileVisitResult.SKIP_SUBTREE;
            }

            @Override
            public FileVisitResult visitFile(Path one, BasicFileAttributes attributes) {
                if (attributes.isRegularFile() && isWanted(one)) found.put(folder.nameInJournal(one), one);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path one, IOException why) throws IOException {
                if (why instanceof NoSuchFileException) return FileVisitResult.CONTINUE; // it went meanwhile
                throw why;
            }

            private boolean isWanted(Path one) {
                if (one.equals(folder.path())) return true;
                String name = String.valueOf(one.getFileName()).replaceFirst("/$", "");
                boolean isTop = folder.path().equals(one.getParent());
                boolean isOfShard = folder.shardsFolder()
                        .equals(one.getParent() == null ? null : one.getParent().getParent());
                return !name.startsWith(".")
                        && !((isTop || isOfShard) && LEFT_OUT.contains(name))
                        && !(isTop && but.contains(name));
            }
        });
        return List.copyOf(found.values());
    }
}
