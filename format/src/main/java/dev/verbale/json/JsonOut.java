package dev.verbale.json;

import java.io.OutputStream;
import tools.jackson.core.ErrorReportConfiguration;
import tools.jackson.core.JsonEncoding;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamWriteConstraints;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.io.ContentReference;
import tools.jackson.core.io.IOContext;
import tools.jackson.core.json.JsonWriteFeature;
import tools.jackson.core.json.UTF8JsonGenerator;
import tools.jackson.core.util.BufferRecycler;

/**
 * Makes generators of JSON without Jackson's factory: that one brings its parsers with it, sixty classes that a JVM which
 * only records never uses, and waits for at its start.
 *
 * @since 0.2.0
 */
public final class JsonOut {

    private static final int STREAM_FEATURES = StreamWriteFeature.collectDefaults();
    private static final int JSON_FEATURES = JsonWriteFeature.collectDefaults();
    private static final int NO_LIMIT_OF_PLAIN_CHARACTERS = 0;

    private JsonOut() {}

    /** One that writes UTF-8 to {@code out}, with nothing between two values. For one thread at a time. */
    public static JsonGenerator generator(OutputStream out) {
        var context = new IOContext(
                StreamReadConstraints.defaults(),
                StreamWriteConstraints.defaults(),
                ErrorReportConfiguration.defaults(),
                new BufferRecycler(),
                ContentReference.unknown(),
                false,
                JsonEncoding.UTF8);
        return new UTF8JsonGenerator(
                ObjectWriteContext.empty(),
                context,
                STREAM_FEATURES,
                JSON_FEATURES,
                out,
                null,
                null,
                null,
                NO_LIMIT_OF_PLAIN_CHARACTERS,
                '"');
    }
}
