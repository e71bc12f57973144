package dev.verbale.publishing;

import dev.verbale.json.JsonIn;
import dev.verbale.json.JsonOut;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Which runs a site has, the newest first: {@code runs.json}, of which all its other pages are made.
 *
 * @param runs one of each name
 */
record SiteIndex(List<PublishedRun> runs) {

    static final String FILE = "runs.json";

    private static final int FORMAT = 1;
    private static final int MAX_RUNS = 100_000;

    static final SiteIndex EMPTY = new SiteIndex(List.of());

    SiteIndex {
        runs = List.copyOf(runs);
    }

    /** With {@code run}, and without the version of it that was there; of the others as many as {@code kept}, and the newest of each branch. */
    SiteIndex with(PublishedRun run, int kept) {
        List<PublishedRun> all = new ArrayList<>(runs);
        all.removeIf(one -> one.name().equals(run.name()));
        all.add(run);
        all.sort(Comparator.comparing((PublishedRun one) -> one.row().summary().started())
                .thenComparing(one -> one.row().summary().name())
                .reversed());
        Set<String> branches = new HashSet<>();
        List<PublishedRun> left = new ArrayList<>();
        for (PublishedRun one : all) {
            boolean isNewest = branches.add(one.branch());
            if (isNewest || left.size() < kept) left.add(one);
        }
        return new SiteIndex(left);
    }

    byte[] json() {
        var bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = JsonOut.generator(bytes)) {
            json.writeStartObject();
            json.writeNumberProperty("format", FORMAT);
            json.writeArrayPropertyStart("runs");
            for (PublishedRun one : runs) one.write(json);
            json.writeEndArray();
            json.writeEndObject();
        }
        bytes.write('\n');
        return bytes.toByteArray();
    }

    /** @throws IOException where it is not what {@link #json} writes: then nobody knows what the site has, and it is left as it is */
    static SiteIndex read(SiteStore.@Nullable Stored stored, String address) throws IOException {
        if (stored == null) return EMPTY;
        List<PublishedRun> runs = new ArrayList<>();
        int format = 0;
        try (JsonParser json = JsonIn.parser(stored.bytes())) {
            if (json.nextToken() != JsonToken.START_OBJECT) throw new IOException("it is no JSON object");
            for (String field = json.nextName(); field != null; field = json.nextName()) {
                json.nextToken();
                if (field.equals("format")) format = json.getIntValue();
                else if (field.equals("runs")) runs(json, runs);
                else json.skipChildren();
            }
            if (format != FORMAT)
                throw new IOException("it has the format " + format + ", and this version knows " + FORMAT);
        } catch (JacksonException | DateTimeException | IOException broken) {
            throw new IOException(
                    address + " is no list of runs of a site: " + broken.getMessage()
                            + ". Name an empty folder or prefix, or take that file away",
                    broken);
        }
        return new SiteIndex(runs);
    }

    private static void runs(JsonParser json, List<PublishedRun> runs) throws IOException {
        while (json.nextToken() == JsonToken.START_OBJECT) {
            PublishedRun run = PublishedRun.read(json);
            if (run == null) throw new IOException("a run in it has no folder, or no name");
            if (runs.size() == MAX_RUNS) throw new IOException("it has more than " + MAX_RUNS + " runs");
            runs.add(run);
        }
    }
}
