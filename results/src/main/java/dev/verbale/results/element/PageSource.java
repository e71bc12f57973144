package dev.verbale.results.element;

import dev.verbale.journal.PlainFile;
import dev.verbale.results.Entry;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The source of a page that was recorded.
 *
 * @since 0.2.0
 */
public final class PageSource {

    /** What is larger was made by no hand, and to read it takes longer than anybody waits. */
    private static final int LARGEST = 2 << 20;

    private PageSource() {}

    /** The last one that was attached among {@code entries} or in their steps, as HTML; null where there is none that can be read. */
    public static @Nullable String last(List<Entry> entries) {
        var last = Entry.AttachmentEntry.last(entries, AttachmentKind.PAGE_SOURCE);
        if (last == null || last.file() == null) return null;
        try {
            return new String(PlainFile.bytes(last.file(), LARGEST), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            return null; // the run says elsewhere that it has lost a file
        }
    }
}
