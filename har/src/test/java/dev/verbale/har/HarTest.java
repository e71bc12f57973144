package dev.verbale.har;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.event.ExchangeMade.Request;
import dev.verbale.results.Entry;
import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What was recorded, as an archive, and archives of others. */
class HarTest {

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeEach
    void open_a_recorder() {
        recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
    }

    private Scope begin(String name) {
        return recorder.startTest(
                recorder.run(),
                TestDescriptor.of("orto." + name, name)
                        .className("orto.Api")
                        .methodName(name)
                        .build());
    }

    /** Exchanges of all kinds in two tests, and one outside. */
    private Run recorded() throws IOException {
        Scope first = begin("swaps");
        Step step = recorder.startStep("Swap");
        recorder.exchange("POST", "https://orto.example/rota?day=Mon&again=&who=Ada%20B#top")
                .protocol("HTTP/1.1")
                .requestHeader("Cookie", "a=1; b=2")
                .requestBody("{\"with\":\"Thu\"}".getBytes(UTF_8), "application/json")
                .timing("dns", Duration.ofNanos(1_000))
                .timing("connect", Duration.ofNanos(3_000))
                .status(201)
                .responseHeader("Location", "/rota/Mon")
                .responseHeader("Set-Cookie", "sid=9; Path=/")
                .responseBody("{\"ok\":true}".getBytes(UTF_8), "application/json")
                .ended();
        step.passed();
        recorder.exchange("POST", "https://orto.example/plans")
                .requestPart("plan", "plan.csv", "a,b".getBytes(UTF_8), "text/csv")
                .status(200)
                .responseBody(new byte[] {0, 1, 2}, "image/png")
                .ended();
        recorder.endTest(first, TestEnd.passed());
        Scope second = begin("asks");
        recorder.exchange("GET", "https://orto.example/weather").failed(new ConnectException("refused"));
        recorder.exchange("ASK", "tcp://gate:7070").ended(); // no HTTP
        recorder.endTest(second, TestEnd.passed());
        begin("has none");
        recorder.exchange(recorder.run(), "GET", "https://orto.example/health")
                .status(204)
                .ended();
        return RunReader.read(recorder.folder());
    }

    private static String written(Run run, String onlyTest) throws IOException {
        var out = new ByteArrayOutputStream();
        boolean all = onlyTest.isEmpty();
        HarWriter.write(run, test -> all || test.id().equals(onlyTest), all, "1.0", out);
        return out.toString(UTF_8);
    }

    @Test
    void an_archive_is_what_the_format_asks_for() throws Exception {
        String har = written(recorded(), "");

        String schema;
        try (InputStream in = Objects.requireNonNull(HarTest.class.getResourceAsStream("har-1.2.schema.json"))) {
            schema = new String(in.readAllBytes(), UTF_8);
        }
        assertThat(SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                        .getSchema(schema)
                        .validate(har, InputFormat.JSON))
                .isEmpty();
        JsonNode log = new JsonMapper().readTree(har).path("log");
        assertThat(log.path("pages").size()).as("tests with exchanges").isEqualTo(2);
        assertThat(log.path("entries").size()).isEqualTo(4);
        for (JsonNode entry : log.path("entries")) {
            double sum = 0;
            for (String part : List.of("blocked", "dns", "connect", "send", "wait", "receive"))
                sum += Math.max(0, entry.path("timings").path(part).asDouble());
            assertThat(sum)
                    .as("the parts make up the time")
                    .isEqualTo(entry.path("time").asDouble(), within(0.01));
            String page = entry.path("pageref").asString("");
            assertThat(page.isEmpty()
                            || log.path("pages").findValuesAsString("id").contains(page))
                    .isTrue();
        }
        assertThat(log.path("entries")
                        .get(0)
                        .path("request")
                        .path("queryString")
                        .findValuesAsString("value"))
                .containsExactly("Mon", "", "Ada B");
    }

    @Test
    void what_is_written_is_read_as_it_was() throws Exception {
        Run run = recorded();
        List<ExchangeEntry> read =
                HarReader.read(new ByteArrayInputStream(written(run, "").getBytes(UTF_8)));

        ExchangeMade swap = read.get(0).made();
        ExchangeEntry recorded =
                (ExchangeEntry) ((Entry.StepEntry) run.tests().get(0).entries().get(0))
                        .entries()
                        .get(0);
        assertThat(read.get(0).at()).isEqualTo(recorded.at());
        assertThat(read.get(0).duration()).isEqualTo(recorded.duration());
        assertThat(swap.status()).isEqualTo(201);
        assertThat(swap.request())
                .as("a fragment is not sent, and not in an archive")
                .isEqualTo(withoutFragment(recorded.made().request()));
        assertThat(swap.response()).isEqualTo(recorded.made().response());
        assertThat(read.get(1).made().request().body().parts())
                .extracting(Part::name, Part::fileName, part -> part.body().text())
                .containsExactly(org.assertj.core.groups.Tuple.tuple("plan", "plan.csv", "a,b"));
        assertThat(read.get(1).made().response().body().leftOut()).contains("binary");
        assertThat(read.get(2).made().failure()).contains("refused");
        assertThat(read.get(2).made().response()).isNull();
    }

    @Test
    void one_test_is_written_alone_and_the_stream_stays_open() throws Exception {
        JsonNode log =
                new JsonMapper().readTree(written(recorded(), "orto.asks")).path("log");

        assertThat(log.path("entries").size()).isEqualTo(1);
        assertThat(log.path("pages").get(0).path("id").asString()).isEqualTo("orto.asks");
    }

    @Test
    void an_archive_of_somebody_else_is_masked_when_it_is_attached_and_read() throws Exception {
        Scope test = begin("looks");
        Path foreign = Path.of("src/test/archives/seeds.har");
        recorder.attach(foreign);
        recorder.endTest(test, TestEnd.passed());

        Run run = RunReader.read(recorder.folder());
        assertThat(run.problems()).isEmpty();
        Entry.AttachmentEntry attachment =
                (Entry.AttachmentEntry) run.tests().get(0).entries().get(0);
        assertThat(Files.readString(foreign)).contains("s3cret-of-Dario");
        assertThat(Files.readString(attachment.file())).doesNotContain("s3cret-of-Dario");
        List<ExchangeEntry> read;
        try (InputStream in = Files.newInputStream(attachment.file())) {
            read = HarReader.read(in);
        }
        ExchangeMade made = read.get(0).made();
        assertThat(made.request().method() + " " + made.request().url() + " " + made.status())
                .isEqualTo("POST https://orto.example/seeds?token=[masked] 200");
        assertThat(made.request().headers()).contains(new Header("authorization", "[masked]"));
        assertThat(made.timing().parts()).containsEntry("connect", 4_000L).containsEntry("first byte", 15_000L);
        assertThat(read.get(0).at()).isEqualTo(Instant.parse("2026-11-24T08:31:07.123Z"));
        assertThat(read.get(1).made().failure()).isEqualTo("net::ERR_CONNECTION_REFUSED");
    }

    @Test
    void an_archive_that_breaks_off_is_kept_and_masked_up_to_there() throws Exception {
        Scope test = begin("breaks");
        String whole = Files.readString(Path.of("src/test/archives/seeds.har"));
        String half = whole.substring(0, whole.lastIndexOf("s3cret-of-Dario") + 8);
        recorder.attach("half.har", half.getBytes(UTF_8), MediaType.of("application/har+json"));
        recorder.endTest(test, TestEnd.passed());

        Entry.AttachmentEntry attachment = (Entry.AttachmentEntry)
                RunReader.read(recorder.folder()).tests().get(0).entries().get(0);
        assertThat(Files.readString(attachment.file()))
                .contains("orto.example/seeds")
                .doesNotContain("s3cret-o");
    }

    @Test
    void fields_that_are_missing_or_of_another_kind_are_passed_over() throws Exception {
        String odd = """
                {"log":{"entries":[{},
                {"startedDateTime":"yesterday","time":"long","request":{"method":7,"url":null,"headers":{"a":1},
                 "postData":{"mimeType":"multipart/form-data","params":[{"value":"7"}]}},
                 "response":{"status":"fine","headers":[{}],"content":{"text":"@@@","encoding":"base64","size":-4}},
                 "timings":{"wait":-1,"dns":"x"}}]}}""";

        List<ExchangeEntry> read = HarReader.read(new ByteArrayInputStream(odd.getBytes(UTF_8)));

        assertThat(read).hasSize(2);
        ExchangeMade nothing = read.get(0).made();
        assertThat(nothing.request().method() + " " + nothing.request().url() + " " + nothing.status())
                .isEqualTo("? ? 0");
        assertThat(nothing.failure()).isEqualTo("no response");
        ExchangeMade made = read.get(1).made();
        assertThat(read.get(1).at()).isEqualTo(Instant.EPOCH);
        assertThat(made.request().body().parts()).hasSize(1);
        assertThat(made.response().headers()).containsExactly(new Header("", ""));
        assertThat(made.response().body().leftOut()).contains("in the archive");
        assertThat(made.timing().microsOrZero()).isZero();
    }

    @Test
    void bodies_in_base64_are_read_as_text_where_they_are_text_and_pseudo_headers_are_none() throws Exception {
        String archive = """
                {"log":{"entries":[{"request":{"method":"POST","url":"https://orto.example/",
                 "headers":[{"name":":authority","value":"orto.example"},{"name":"accept","value":"*/*"}],
                 "postData":{"mimeType":"text/plain; charset=iso-8859-1","text":"S/xyYmlz","_encoding":"base64"}},
                 "response":{"status":200,"headers":[],"content":{"mimeType":"application/json","size":12,
                 "text":"eyJjcm9wIjoiS8O8cmJpcyJ9","encoding":"base64"}}}]}}""";

        ExchangeMade made = HarReader.read(new ByteArrayInputStream(archive.getBytes(UTF_8)))
                .get(0)
                .made();

        assertThat(made.request().headers()).containsExactly(new Header("accept", "*/*"));
        assertThat(made.request().body().text()).isEqualTo("Kürbis");
        assertThat(made.response().body().text()).isEqualTo("{\"crop\":\"Kürbis\"}");
    }

    @Test
    void each_cookie_is_one_the_status_has_its_words_and_binary_bodies_can_be_kept() throws Exception {
        Scope test = begin("logs in");
        var exchange = recorder.exchange("PUT", "https://orto.example/photo");
        exchange.requestBody(new byte[] {0, 1, (byte) 0xFF}, "image/x-raw");
        exchange.status(404);
        exchange.responseHeader("X-Other", "1");
        exchange.responseHeader("Set-Cookie", "bed=7; Path=/");
        exchange.responseHeader("Set-Cookie", "crop=kale");
        exchange.responseBody("Ünder".getBytes(UTF_8), "text/plain; charset=utf-8");
        exchange.ended();
        recorder.endTest(test, TestEnd.passed());
        String har = written(RunReader.read(recorder.folder()), "");
        JsonNode response = new JsonMapper()
                .readTree(har)
                .path("log")
                .path("entries")
                .get(0)
                .path("response");

        assertThat(response.path("statusText").asString()).isEqualTo("Not Found");
        assertThat(response.path("cookies").size()).isEqualTo(2);
        assertThat(response.path("content").path("size").asInt()).isEqualTo(6);

        List<byte[]> kept = new ArrayList<>();
        ExchangeEntry read = HarReader.read(new ByteArrayInputStream(har.getBytes(UTF_8)), bytes -> {
                    kept.add(bytes);
                    return "bodies/" + kept.size();
                })
                .get(0);
        assertThat(kept).containsExactly(new byte[] {0, 1, (byte) 0xFF});
        assertThat(read.made().request().body().file()).isEqualTo("bodies/1");
        assertThat(read.made().request().body().leftOut()).isNull();
    }

    @Test
    void cookies_say_for_whom_they_are() throws Exception {
        var json = new java.io.StringWriter();
        try (JsonGenerator generator =
                new JsonFactory().createGenerator(tools.jackson.core.ObjectWriteContext.empty(), json)) {
            generator.writeStartObject();
            new HarEntryWriter(generator)
                    .setCookies(List.of(
                            new dev.verbale.event.ExchangeMade.Header(
                                    "Set-Cookie",
                                    "bed=7; Path=/; Domain=orto.example; Expires=Wed, 21 Oct 2026 07:28:00 GMT; HttpOnly; Secure"),
                            new dev.verbale.event.ExchangeMade.Header("set-cookie", "a=1, b=2; Path=/x")));
            generator.writeEndObject();
        }
        JsonNode cookies = new JsonMapper().readTree(json.toString()).path("cookies");

        assertThat(cookies.size()).isEqualTo(3);
        assertThat(cookies.get(0).toString())
                .isEqualTo(
                        "{\"name\":\"bed\",\"value\":\"7\",\"path\":\"/\",\"domain\":\"orto.example\",\"expires\":\"2026-10-21T07:28:00Z\",\"httpOnly\":true,\"secure\":true}");
        assertThat(cookies.get(2).path("name").asString()).isEqualTo("b");
    }

    @Test
    void a_binary_request_is_exported_and_a_time_that_nobody_knows_is_said() throws Exception {
        Scope test = begin("uploads");
        var first = recorder.exchange("PUT", "https://orto.example/photo");
        first.requestBody(new byte[] {0, 1, (byte) 0xFF}, "image/x-raw");
        var second = first.next("PUT", "https://orto.example/photos/1");
        first.status(307).ended();
        second.status(201).ended();
        recorder.endTest(test, TestEnd.passed());

        JsonNode entries = new JsonMapper()
                .readTree(written(RunReader.read(recorder.folder()), ""))
                .path("log")
                .path("entries");
        assertThat(entries.get(0).path("request").path("postData").path("text").asString())
                .isEqualTo("AAH/");
        assertThat(entries.get(0)
                        .path("request")
                        .path("postData")
                        .path("_encoding")
                        .asString())
                .isEqualTo("base64");
        assertThat(entries.get(1).path("comment").asString()).contains("not known");
        assertThat(entries.get(1).path("time").asDouble()).isZero();
    }

    @Test
    void what_is_no_archive_is_said() {
        assertThatThrownBy(() -> HarReader.read(new ByteArrayInputStream("{\"log\":".getBytes(UTF_8))))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("not JSON");
        assertThatThrownBy(() -> HarReader.read(new ByteArrayInputStream("{\"a\":1}".getBytes(UTF_8))))
                .hasMessageContaining("no log.entries");
    }

    private static Request withoutFragment(Request request) {
        return new Request(request.method(), request.url().replaceFirst("#.*", ""), request.headers(), request.body());
    }
}
