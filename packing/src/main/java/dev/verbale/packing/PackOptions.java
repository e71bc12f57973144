package dev.verbale.packing;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * What of a run is packed. Each method gives new options and leaves these as they are.
 *
 * @param failuresOnly whether of tests that passed nothing is wanted but that they did
 * @param without what is not wanted of any test, in words of {@link #PARTS}
 * @param maxBytes how large the pack may become; attachments are left out until it fits. {@link Long#MAX_VALUE} for any size
 * @since 0.2.0
 */
public record PackOptions(boolean failuresOnly, Set<String> without, long maxBytes) {

    /** The kinds of attachments that the format knows, bodies of exchanges, and lines of loggers. */
    public static final List<String> PARTS = List.of(
            "video", "frames", "screenshot", "page-source", "console", "network", "attachment", "bodies", "logs");

    /** The whole run, however large. */
    public static final PackOptions WHOLE = new PackOptions(false, Set.of(), Long.MAX_VALUE);

    /** @throws IllegalArgumentException where a word is none of {@link #PARTS}, or nothing fits */
    public PackOptions {
        without = Set.copyOf(without);
        Set<String> unknown = new TreeSet<>(without);
        PARTS.forEach(unknown::remove);
        if (!unknown.isEmpty())
            throw new IllegalArgumentException("'" + String.join("', '", unknown) + "' is none of "
                    + PARTS.stream().collect(Collectors.joining(", ")));
        if (maxBytes < 1) throw new IllegalArgumentException("a pack of " + maxBytes + " bytes has room for nothing");
    }

    public PackOptions withFailuresOnly(boolean only) {
        return new PackOptions(only, without, maxBytes);
    }

    public PackOptions withWithout(Set<String> parts) {
        return new PackOptions(failuresOnly, parts, maxBytes);
    }

    public PackOptions withMaxBytes(long bytes) {
        return new PackOptions(failuresOnly, without, bytes);
    }

    /** Whether the run is packed as it is, byte for byte. */
    boolean isWhole() {
        return !failuresOnly && without.isEmpty() && maxBytes == Long.MAX_VALUE;
    }
}
