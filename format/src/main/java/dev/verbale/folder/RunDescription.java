package dev.verbale.folder;

import dev.verbale.journal.PlainFile;
import dev.verbale.json.JsonIn;
import dev.verbale.json.JsonOut;
import dev.verbale.json.WallClockText;
import dev.verbale.json.WellFormedText;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * {@code run.json}: what is known of a run when its first JVM starts. Written once and never again, so that no crash and
 * no second JVM can spoil it; what comes later, totals included, is in the journals.
 *
 * @param format the version of the format
 * @param name the run's name
 * @param started by the wall clock
 * @param facts such as {@code os} or {@code java}, in the order in which they are shown
 * @since 0.2.0
 */
public record RunDescription(int format, String name, Instant started, Map<String, String> facts) {

    private static final int LONGEST = 1 << 20;

    public RunDescription {
        facts = Collections.unmodifiableMap(new LinkedHashMap<>(facts));
    }

    /**
     * Writes this to {@code file} unless another JVM of the run did so before.
     *
     * @throws IOException where it cannot be written
     */
    public void writeIfAbsent(Path file) throws IOException {
        try {
            Files.write(file, json(), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        } catch (FileAlreadyExistsException written) {
            // by a JVM of the same build, which knew the same
        }
    }

    private byte[] json() {
        var bytes = new ByteArrayOutputStream();
        try (var json = JsonOut.generator(bytes)) {
            json.writeStartObject();
            json.writeNumberProperty("format", format);
            json.writeStringProperty("name", name);
            json.writeStringProperty("started", WallClockText.of(started));
            json.writeObjectPropertyStart("facts");
            for (var fact : facts.entrySet()) json.writeStringProperty(fact.getKey(), fact.getValue());
            json.writeEndObject();
            json.writeEndObject();
        }
        bytes.write('\n');
        return bytes.toByteArray();
    }

    /**
     * Reads {@code file}.
     *
     * @throws IOException where it cannot be read, or is not what {@link #writeIfAbsent} writes; the message says which
     */
    public static RunDescription read(Path file) throws IOException {
        int format = 0;
        String name = null;
        String started = null;
        Map<String, String> facts = new LinkedHashMap<>();
        try (JsonParser json = JsonIn.parser(PlainFile.bytes(file, LONGEST))) {
            if (json.nextToken() != JsonToken.START_OBJECT) throw new IOException("not a JSON object");
            for (String field = json.nextName(); field != null; field = json.nextName()) {
                json.nextToken();
                switch (field) {
                    case "format" -> format = json.getIntValue();
                    case "name" -> name = json.getString();
                    case "started" -> started = json.getString();
                    case "facts" -> readFacts(json, facts);
                    default -> json.skipChildren();
                }
            }
            return new RunDescription(
                    format, there(name, "name"), WallClockText.read(there(started, "started")), facts);
        } catch (FileSystemException unusable) {
            throw unusable.getReason() == null ? unusable : new IOException(unusable.getReason(), unusable);
        } catch (JacksonException broken) {
            throw new IOException("not JSON: " + broken.getOriginalMessage(), broken);
        } catch (DateTimeException broken) {
            throw new IOException("'started' is not a time: " + started, broken);
        }
    }

    private static void readFacts(JsonParser json, Map<String, String> facts) {
        for (String fact = json.nextName(); fact != null; fact = json.nextName()) {
            json.nextToken();
            if (json.currentToken().isStructStart()) json.skipChildren(); // a newer format may say more
            else facts.put(WellFormedText.of(fact), WellFormedText.of(String.valueOf(json.getString())));
        }
    }

    private static String there(@Nullable String value, String field) throws IOException {
        if (value == null) throw new IOException("there is no '" + field + "'");
        return value;
    }
}
