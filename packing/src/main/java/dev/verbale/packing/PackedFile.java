package dev.verbale.packing;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;

/**
 * A file of a run beside its journals: an attachment, or a body of an exchange.
 *
 * @param file where it is
 * @param part what it is, in a word of {@link PackOptions#PARTS}
 * @param matters whether its test needs attention, or it belongs to none
 * @param at when it was made, in microseconds since 1970
 */
record PackedFile(Path file, String part, boolean matters, long at) {

    private static final List<String> LEAST_FIRST =
            List.of("video", "frames", "network", "attachment", "bodies", "console", "page-source", "screenshot");

    /** Those first that are kept longest: of tests that need attention, screenshots before videos, the newest. */
    static final Comparator<PackedFile> IMPORTANT_FIRST = Comparator.comparing(PackedFile::matters)
            .thenComparing(one -> LEAST_FIRST.indexOf(one.part()))
            .thenComparing(PackedFile::at)
            .reversed()
            .thenComparing(one -> one.file().toString());
}
