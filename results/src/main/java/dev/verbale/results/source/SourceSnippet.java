package dev.verbale.results.source;

import java.nio.file.Path;
import java.util.List;

/**
 * Some lines of a source file, as they are now.
 *
 * @param line that it is about, from 1
 * @param first the number of the first of its lines
 * @since 0.2.0
 */
public record SourceSnippet(Path file, int line, int first, List<String> lines) {

    public SourceSnippet {
        lines = List.copyOf(lines);
    }
}
