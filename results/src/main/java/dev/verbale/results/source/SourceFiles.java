package dev.verbale.results.source;

import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Source files below some folders, found by the frames of stack traces. Names with a dot in front, and what builds write
 * ({@code target}, {@code build}, {@code node_modules}), are passed over; links are not followed.
 *
 * @since 0.2.0
 */
public final class SourceFiles {

    private static final Set<String> BUILT = Set.of("target", "build", "node_modules", "out", "bin");
    private static final Set<String> EXTENSIONS = Set.of(".java", ".kt", ".groovy", ".scala");
    private static final int MAX_FILES = 200_000;
    private static final int LARGEST = 2 << 20;
    private static final int AROUND = 4;
    private static final int LONGEST_LINE = 200;

    /** {@code dev.orto.RotaTest$Inner.swaps(RotaTest.java:31)}, with what stands before it in a stack trace. */
    private static final Pattern FRAME =
            Pattern.compile("(?:\\s*at )?(?:[\\w.@-]*/)*+([\\w.$]+)\\.[^.(]+\\(([\\w$-]+\\.\\w+):(\\d+)\\)\\s*");

    private final Map<String, List<Path>> byName = new HashMap<>();

    private SourceFiles() {}

    /**
     * Those below {@code folders}, listed once.
     *
     * @throws IOException where one of the folders cannot be read
     */
    public static SourceFiles below(List<Path> folders) throws IOException {
        var files = new SourceFiles();
        for (Path folder : folders) files.list(folder);
        files.byName.values().forEach(paths -> paths.sort(Comparator.naturalOrder()));
        return files;
    }

    private void list(Path folder) throws IOException {
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            private int seen;

            @Override
            public FileVisitResult preVisitDirectory(Path one, BasicFileAttributes is) {
                String name = String.valueOf(one.getFileName());
                boolean isPassedOver = !one.equals(folder) && (name.startsWith(".") || BUILT.contains(name));
                return isPassedOver ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes is) {
                String name = String.valueOf(file.getFileName());
                if (is.isRegularFile() && EXTENSIONS.contains(name.substring(Math.max(0, name.lastIndexOf('.')))))
                    byName.computeIfAbsent(name, first -> new ArrayList<>()).add(file);
                return ++seen > MAX_FILES ? FileVisitResult.TERMINATE : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException why) throws IOException {
                if (file.equals(folder)) throw why;
                return FileVisitResult.CONTINUE; // what may not be read is not at hand
            }
        });
    }

    /**
     * The lines around the one that {@code frame} names; null where no file of its class is here, or where two could be it, or where the
     * file has no such line.
     *
     * @param frame a line of a stack trace, with or without what stands before the class
     */
    public @Nullable SourceSnippet around(String frame) {
        Matcher parts = FRAME.matcher(frame);
        if (!parts.matches()) return null;
        Path file = file(parts.group(1), parts.group(2));
        if (file == null || parts.group(3).length() > 8) return null;
        try {
            return snippet(file, Integer.parseInt(parts.group(3)));
        } catch (IOException unreadable) {
            return null;
        }
    }

    private @Nullable Path file(String className, String name) {
        int dot = className.lastIndexOf('.');
        Path end = dot < 0 ? Path.of(name) : Path.of(className.substring(0, dot).replace('.', '/'), name);
        List<Path> found = byName.getOrDefault(name, List.of()).stream()
                .filter(path -> path.endsWith(end))
                .toList();
        return found.size() == 1 ? found.get(0) : null;
    }

    private static @Nullable SourceSnippet snippet(Path file, int line) throws IOException {
        String text = new String(PlainFile.bytes(file, LARGEST), StandardCharsets.UTF_8);
        List<String> lines = text.lines().toList();
        if (line < 1 || line > lines.size()) return null;
        int first = Math.max(1, line - AROUND);
        int last = Math.min(lines.size(), line + AROUND);
        List<String> shown = lines.subList(first - 1, last).stream()
                .map(one -> one.length() > LONGEST_LINE ? one.substring(0, LONGEST_LINE) + "…" : one)
                .toList();
        return new SourceSnippet(file, line, first, shown);
    }
}
