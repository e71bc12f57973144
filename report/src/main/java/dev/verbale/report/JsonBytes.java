package dev.verbale.report;

import dev.verbale.json.JsonOut;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * JSON as bytes, one value after another. A generator for each of a hundred thousand tests takes as long as some of them. Belongs to
 * one thread at a time.
 */
final class JsonBytes {

    /** What is kept between two values: one giant test must not hold its memory until the page is done. */
    private static final int KEPT_BYTES = 1 << 20;

    private ByteArrayOutputStream bytes = new ByteArrayOutputStream(0);
    private @Nullable JsonGenerator generator;

    /** What {@code value} writes. */
    byte[] of(ScriptFile.Argument value) throws IOException {
        JsonGenerator json = generator;
        generator = null; // one that stopped midway stands inside an object
        if (json == null) {
            bytes = new ByteArrayOutputStream(1_024);
            json = JsonOut.generator(bytes);
        }
        bytes.reset();
        value.write(json);
        json.flush();
        if (bytes.size() <= KEPT_BYTES) generator = json;
        return bytes.toByteArray();
    }
}
