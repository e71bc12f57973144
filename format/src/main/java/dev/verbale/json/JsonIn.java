package dev.verbale.json;

import java.io.InputStream;
import tools.jackson.core.JsonParser;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.JsonRecyclerPools;

/**
 * Makes parsers of JSON that Verbale wrote.
 *
 * @since 0.2.0
 */
public final class JsonIn {

    // A long log line is no attack, and cutting it at Jackson's limit would lose it.
    private static final StreamReadConstraints NO_LENGTH_LIMIT = StreamReadConstraints.builder()
            .maxStringLength(Integer.MAX_VALUE)
            .maxDocumentLength(-1)
            .build();

    // The shared pool of buffers is where two threads that read side by side meet, once a line.
    private static final JsonFactory FACTORY = JsonFactory.builder()
            .streamReadConstraints(NO_LENGTH_LIMIT)
            .recyclerPool(JsonRecyclerPools.threadLocalPool())
            .build();

    private JsonIn() {}

    /** One that reads {@code bytes}. */
    public static JsonParser parser(byte[] bytes) {
        return parser(bytes, 0, bytes.length);
    }

    /** One that reads {@code in}, without closing it. */
    public static JsonParser parser(InputStream in) {
        return FACTORY.createParser(ObjectReadContext.empty(), in);
    }

    /** One that reads {@code length} of {@code bytes}, from index {@code from}. */
    public static JsonParser parser(byte[] bytes, int from, int length) {
        return FACTORY.createParser(ObjectReadContext.empty(), bytes, from, length);
    }
}
