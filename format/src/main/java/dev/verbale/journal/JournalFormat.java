package dev.verbale.journal;

import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;

/** What every journal has in common. */
public final class JournalFormat {

    /** The version that this code writes. Readers of version 1 also read later ones, without what they do not know. */
    public static final int VERSION = 1;

    /** How journal files end. */
    public static final String FILE_SUFFIX = ".jsonl";

    // The recorder wrote these lines: a long log line is no attack, and cutting it at Jackson's limit would lose it.
    private static final StreamReadConstraints NO_LENGTH_LIMIT = StreamReadConstraints.builder()
            .maxStringLength(Integer.MAX_VALUE)
            .maxDocumentLength(-1)
            .build();

    /** Makes the parsers of journals and of {@code run.json}. */
    public static final JsonFactory JSON =
            JsonFactory.builder().streamReadConstraints(NO_LENGTH_LIMIT).build();

    private JournalFormat() {}
}
