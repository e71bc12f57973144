package dev.verbale.har;

import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import tools.jackson.core.JsonEncoding;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;

/**
 * Writes the HTTP exchanges of a run as one archive. Each test that has some is a page of it, and those outside tests belong
 * to none. Exchanges that are no HTTP are left out: the format has no place for them.
 *
 * @since 0.2.0
 */
public final class HarWriter {

    private static final Set<String> SCHEMES = Set.of("http", "https", "ws", "wss");

    private final JsonGenerator json;
    private final HarEntryWriter entries;
    private int written;

    private HarWriter(JsonGenerator json) {
        this.json = json;
        this.entries = new HarEntryWriter(json);
    }

    /**
     * Writes those of the tests that {@code wanted} holds for, and, where {@code outside} is said, those outside tests.
     * {@code out} is left open.
     *
     * @return how many
     * @throws IOException where a body cannot be read, or nothing be written
     */
    public static int write(Run run, Predicate<TestResult> wanted, boolean outside, String version, OutputStream out)
            throws IOException {
        List<TestResult> tests = run.tests().stream()
                .filter(wanted)
                .filter(test -> Entry.ExchangeEntry.in(test.entries()).stream().anyMatch(HarWriter::isHttp))
                .toList();
        ObjectWriteContext context = new ObjectWriteContext.Base() {
            @Override
            public tools.jackson.core.PrettyPrinter getPrettyPrinter() {
                return new DefaultPrettyPrinter(); // such files are read by people, and compared
            }
        };
        try (JsonGenerator json = new JsonFactory().createGenerator(context, new Kept(out), JsonEncoding.UTF8)) {
            var writer = new HarWriter(json);
            writer.log(run, tests, outside, version);
            return writer.written;
        }
    }

    private void log(Run run, List<TestResult> tests, boolean outside, String version) throws IOException {
        json.writeStartObject();
        json.writeObjectPropertyStart("log");
        json.writeStringProperty("version", "1.2");
        json.writeObjectPropertyStart("creator");
        json.writeStringProperty("name", "Verbale");
        json.writeStringProperty("version", version);
        json.writeEndObject();
        json.writeArrayPropertyStart("pages");
        for (TestResult test : tests) page(test);
        json.writeEndArray();
        json.writeArrayPropertyStart("entries");
        for (TestResult test : tests) entries(test.entries(), test.id());
        if (outside) entries(run.entries(), "");
        json.writeEndArray();
        json.writeEndObject();
        json.writeEndObject();
    }

    private void page(TestResult test) {
        json.writeStartObject();
        json.writeStringProperty("startedDateTime", test.started().toString());
        json.writeStringProperty("id", test.id());
        json.writeStringProperty("title", test.name());
        json.writeObjectPropertyStart("pageTimings");
        json.writeEndObject();
        json.writeEndObject();
    }

    private void entries(List<Entry> some, String page) throws IOException {
        for (Entry.ExchangeEntry exchange : Entry.ExchangeEntry.in(some)) {
            if (!isHttp(exchange)) continue;
            entries.write(exchange, page);
            written++;
        }
    }

    private static boolean isHttp(Entry.ExchangeEntry exchange) {
        String url = exchange.made().request().url();
        int colon = url.indexOf("://");
        return colon > 0 && SCHEMES.contains(url.substring(0, colon).toLowerCase(java.util.Locale.ROOT));
    }

    /** A stream that is somebody else's to close. */
    private static final class Kept extends java.io.FilterOutputStream {
        Kept(OutputStream out) {
            super(out);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            out.write(bytes, from, length);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }
}
