package dev.verbale;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.Modifier;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Exchanges of whatever client: bodies of all kinds, traces, checks. */
class ExchangeTest {

    private static final String SECRET = "hunter2-of-Ada";
    private static final String UPLOAD = "multipart/form-data; boundary=\"--- a bed\"";

    @TempDir
    Path root;

    private AdapterRecorder recorder;
    private Scope test;

    @BeforeEach
    void begin_a_test() {
        open(Map.of());
    }

    private void open(Map<String, String> settings) {
        recorder = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(root.resolve("with" + settings.hashCode()))
                .withSummaryLine(false)
                .withSettings(settings));
        test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("key", "name")
                        .className("sample.Api")
                        .methodName("asks")
                        .build());
    }

    @Test
    void what_is_packed_is_unpacked_and_masked_also_where_it_breaks_off() throws Exception {
        String text = "{\"password\":\"" + SECRET + "\",\"beds\":[" + "7,".repeat(2_000) + "7]}";
        byte[] gzip = gzip(text);
        answer(gzip, "gzip");
        answer(deflated(text), "deflate");
        answer(text.getBytes(UTF_8), "gzip"); // a client that undid it and left the header
        answer(Arrays.copyOf(gzip, gzip.length - 9), "gzip");
        answer(gzip(new String(gzip, java.nio.charset.StandardCharsets.ISO_8859_1)), "zstd");

        List<Body> bodies =
                exchanges().stream().map(one -> one.response().body()).toList();

        assertThat(bodies.subList(0, 3)).allSatisfy(body -> {
            assertThat(body.text())
                    .startsWith("{\"password\":\"[masked]\",\"beds\":[7,7")
                    .endsWith("7]}");
            assertThat(body.isCut()).isFalse();
        });
        assertThat(bodies.get(0).size()).isEqualTo(gzip.length);
        assertThat(bodies.get(0).decoded()).isEqualTo(text.length());
        assertThat(bodies.get(3).text()).startsWith("{\"password\":\"[masked]\"");
        assertThat(bodies.get(3).isCut()).isTrue();
        assertThat(bodies.get(4).leftOut()).contains("zstd", "masked");
        assertNowhere(SECRET);
    }

    @Test
    void brotli_is_read_where_the_suite_has_a_decoder() throws Exception {
        // {"password":"hunter2-of-Ada"}, packed by another program; nothing in the JDK makes it
        byte[] packed = Base64.getDecoder().decode("Cw6AeyJwYXNzd29yZCI6Imh1bnRlcjItb2YtQWRhIn0D");
        answer(packed, "br");

        Body body = exchanges().get(0).response().body();
        assertThat(body.text()).isEqualTo("{\"password\":\"[masked]\"}");
        assertNowhere(SECRET);
    }

    @Test
    void a_form_with_files_is_kept_in_parts_with_its_secret_fields_masked() throws Exception {
        String form = "----- a bed\r\n"
                + "Content-Disposition: form-data; name=\"password\"\r\n\r\n" + SECRET + "\r\n"
                + "----- a bed\r\nContent-Disposition: form-data; name=\"neighbour\"\r\n\r\nAda\r\n"
                + "----- a bed\r\nContent-Disposition: form-data; name=\"plan\"; filename=\"plan.csv\"\r\n"
                + "Content-Type: text/csv\r\n\r\na,b\r\n1,2\r\n"
                + "----- a bed\r\nContent-Disposition: form-data; name=\"photo\"; filename=\"bed.png\"\r\n"
                + "Content-Type: image/png\r\n\r\n\u0001\u0000\u0002\r\n----- a bed--\r\n";
        recorder.exchange("POST", "https://orto.example/plans")
                .requestBody(form.getBytes(UTF_8), UPLOAD)
                .ended();
        recorder.exchange("POST", "https://orto.example/plans")
                .requestPart("token", null, SECRET.getBytes(UTF_8), "text/plain")
                .requestPart("plan", "plan.csv", "a,b".getBytes(UTF_8), "text/csv")
                .ended();

        List<ExchangeMade> made = exchanges();
        assertThat(made.get(0).request().body().parts())
                .extracting(Part::name, Part::fileName, part -> part.body().text())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("password", null, "[masked]"),
                        org.assertj.core.groups.Tuple.tuple("neighbour", null, "Ada"),
                        org.assertj.core.groups.Tuple.tuple("plan", "plan.csv", "a,b\r\n1,2"),
                        org.assertj.core.groups.Tuple.tuple("photo", "bed.png", null));
        String photo = made.get(0).request().body().parts().get(3).body().file();
        assertThat(Files.readAllBytes(recorder.folder().resolve(photo))).containsExactly(1, 0, 2);
        assertThat(made.get(1).request().body().parts())
                .extracting(part -> part.body().text())
                .containsExactly("[masked]", "a,b");
        assertNowhere(SECRET);
    }

    @Test
    void a_form_that_is_odd_or_breaks_off_is_read_as_far_as_it_goes() throws Exception {
        String head = "Content-Disposition: form-data; name=";
        sent(
                "multipart/form-data; boundary=b",
                "before it\r\n--b\r\n" + head + "plot\r\n\r\n7\r\n--b\r\n" + head
                        + "\"crop\"; filename=\"a b.txt\"\r\n\r\nKal");
        sent("multipart/mixed; boundary=b", "--b\r\n\r\nno name\r\n--b--");
        sent("multipart/form-data", "--b\r\n" + head + "plot\r\n\r\n7\r\n--b--");
        sent("multipart/form-data; boundary=other", "--b\r\n" + head + "plot\r\n\r\n7\r\n--b--");

        List<Body> bodies =
                exchanges().stream().map(one -> one.request().body()).toList();
        assertThat(bodies.get(0).parts())
                .extracting(Part::name, Part::fileName, part -> part.body().text())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("plot", null, "7"),
                        org.assertj.core.groups.Tuple.tuple("crop", "a b.txt", "Kal"));
        assertThat(bodies.get(1).parts())
                .extracting(Part::name, part -> part.body().text())
                .containsExactly(org.assertj.core.groups.Tuple.tuple("", "no name"));
        assertThat(bodies.subList(2, 4)).allSatisfy(body -> {
            assertThat(body.file()).isNull();
            assertThat(body.leftOut()).contains("parts cannot be told apart");
        });
    }

    private void sent(String type, String body) {
        recorder.exchange("POST", "https://orto.example/plans")
                .requestBody(body.getBytes(UTF_8), type)
                .ended();
    }

    @Test
    void a_long_text_is_shown_by_its_beginning_and_whole_in_a_file_without_its_secrets() throws Exception {
        String lines = "{\"token\":\"" + SECRET + "\"}\n";
        String text = lines.repeat(3_000);
        recorder.secret("Basil-and-Kale");
        recorder.secret("blue door seven");
        String atTheCut = "y".repeat(19_991) + " blue door seven and so on " + "z".repeat(9_000);
        recorder.exchange("GET", "https://orto.example/cut")
                .responseBody(atTheCut.getBytes(UTF_8), "text/plain")
                .ended();
        recorder.exchange("GET", "https://orto.example/feed")
                .responseBody((text + "Basil-and-Kale").getBytes(UTF_8), "application/x-ndjson")
                .ended();

        Body body = exchanges().get(1).response().body();
        assertThat(body.text()).startsWith("{\"token\":\"[masked]\"}\n").hasSizeLessThanOrEqualTo(20_000);
        assertThat(body.isCut()).as("the file has all of it").isFalse();
        assertThat(Files.readString(recorder.folder().resolve(body.file())).lines())
                .hasSize(3_001);
        assertNowhere(SECRET);
        assertNowhere("Basil-and-Kale");
        assertNowhere("blue");
    }

    @Test
    void a_stream_is_heard_while_the_test_reads_it_and_no_secret_is_cut_in_two() throws Exception {
        open(Map.of("verbale.exchange.bytes", "40"));
        recorder.secret(SECRET);
        String text = "x".repeat(30) + " " + SECRET + " and more";
        Exchange exchange =
                recorder.exchange("GET", "https://orto.example/stream").status(200);
        try (InputStream captured =
                exchange.responseBody(new ByteArrayInputStream(text.getBytes(UTF_8)), "text/plain")) {
            assertThat(captured.read()).isEqualTo('x');
            assertThat(captured.skip(4)).isEqualTo(4);
            assertThat(new String(captured.readAllBytes(), UTF_8)).isEqualTo(text.substring(5));
        }
        Exchange broken = recorder.exchange("GET", "https://orto.example/broken");
        InputStream breaks = broken.responseBody(
                new InputStream() {
                    @Override
                    public int read() throws IOException {
                        throw new IOException("the hose burst");
                    }
                },
                "text/plain");
        assertThatThrownBy(breaks::readAllBytes).hasMessage("the hose burst");

        List<ExchangeMade> made = exchanges();
        Body body = made.get(0).response().body();
        assertThat(body.size()).isEqualTo(text.length());
        assertThat(body.isCut()).isTrue();
        assertThat(body.text().strip()).isEqualTo("x".repeat(30));
        assertThat(made.get(1).failure()).contains("the hose burst");
    }

    @Test
    void what_is_not_answered_by_the_end_of_its_test_is_told_by_then() throws Exception {
        recorder.exchange("GET", "https://orto.example/slow");
        InputStream feed = recorder.exchange("GET", "https://orto.example/feed")
                .status(200)
                .responseBody(
                        new ByteArrayInputStream("data: rain\n\ndata: sun\n\n".getBytes(UTF_8)), "text/event-stream");
        assertThat(feed.readNBytes(12)).hasSize(12);

        List<ExchangeMade> exchanges = exchanges();
        assertThat(exchanges)
                .extracting(made -> made.request().url().replaceFirst(".*/", "") + " "
                        + made.attributes().get("ended"))
                .containsExactlyInAnyOrder(
                        "slow by the end of the test, without a response",
                        "feed by the end of the test, before the response");
        assertThat(exchanges)
                .anyMatch(made ->
                        made.status() == 200 && made.response().body().text().equals("data: rain\n\n"));
    }

    @Test
    void bodies_are_not_kept_where_the_settings_say_so() throws Exception {
        open(Map.of("verbale.exchange.bytes", "0"));
        answer("{}".getBytes(UTF_8), "");

        Body body = exchanges().get(0).response().body();
        assertThat(body.text()).isNull();
        assertThat(body.leftOut()).contains("verbale.exchange.bytes");
        assertThat(body.size()).isEqualTo(2);
    }

    @Test
    void a_trace_is_named_where_one_is_wanted_or_was_sent_anyway() throws Exception {
        assertThat(recorder.exchange("GET", "https://orto.example/").traceParent())
                .isNull();
        String theirs = "00-4bf92f3577b34da6a3ce929d0e0e4736-00f067aa0ba902b7-01";
        recorder.exchange("GET", "https://orto.example/")
                .requestHeader("Traceparent", theirs)
                .ended();
        assertThat(exchanges().get(1).trace())
                .isEqualTo(new ExchangeMade.Trace("4bf92f3577b34da6a3ce929d0e0e4736", null));

        open(Map.of("verbale.trace.send", "true", "verbale.trace.address", "https://traces.example/$0"));
        Exchange asked = recorder.exchange("GET", "https://orto.example/");
        String header = asked.traceParent();
        asked.requestHeader("traceparent", header).ended();
        assertThat(header).matches("00-[0-9a-f]{32}-[0-9a-f]{16}-01");
        ExchangeMade.Trace trace = exchanges().get(0).trace();
        assertThat(header).contains(trace.id());
        assertThat(trace.address()).isEqualTo("https://traces.example/" + trace.id());
    }

    @Test
    void outside_tests_it_ends_with_its_container_or_when_too_many_are_open() throws Exception {
        recorder.endTest(test, TestEnd.passed());
        Scope container = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of("sample.Api", "Api")
                        .className("sample.Api")
                        .methodName("")
                        .build());
        try (Entered here = recorder.enter(container)) {
            recorder.exchange("GET", "https://orto.example/beds").status(200);
        }
        recorder.endContainer(container, TestEnd.passed(), 0);
        try (Entered here = recorder.enter(recorder.run())) {
            for (int i = 0; i < 1_003; i++) recorder.exchange("GET", "https://orto.example/poll/" + i);
        }

        List<ExchangeMade> outside = new java.util.ArrayList<>();
        Run run = read();
        List<Entry> entries = new java.util.ArrayList<>(run.entries());
        run.containers().forEach(one -> entries.addAll(one.entries()));
        for (Entry.ExchangeEntry one : Entry.ExchangeEntry.in(entries)) outside.add(one.made());
        assertThat(outside)
                .extracting(one -> one.request().url().replaceFirst(".*/", "") + " "
                        + one.attributes().get("ended"))
                .contains("beds by the end of the container, before the response")
                .contains("0 by the end of the run, without a response", "2 by the end of the run, without a response");
    }

    @Test
    void an_exchange_stands_where_it_was_sent_and_not_where_it_was_over() throws Exception {
        Exchange slow = recorder.exchange("GET", "https://orto.example/slow");
        recorder.log("waiting", new Object[0]);
        recorder.startStep("Meanwhile").close();
        slow.status(200).ended();

        assertThat(read().tests().get(0).entries())
                .extracting(entry -> entry.getClass().getSimpleName())
                .containsExactly("ExchangeEntry", "LogEntry", "StepEntry");
    }

    @Test
    void requests_of_one_call_that_were_told_afterwards_stand_in_their_order_and_have_no_time() throws Exception {
        AdapterExchange first =
                recorder.exchange("POST", "https://orto.example/old").client("a client");
        first.timing("first byte", Duration.ofMillis(3));
        Exchange second = first.next("GET", "https://orto.example/new");
        first.status(303).ended();
        second.status(200).ended();

        List<ExchangeMade> made = exchanges();
        assertThat(made)
                .extracting(one -> one.request().method() + " " + one.status())
                .containsExactly("POST 303", "GET 200");
        assertThat(made)
                .allMatch(one -> one.timing().micros() == null)
                .allMatch(one -> one.timing().parts().isEmpty())
                .allMatch(one -> one.client().equals("a client"))
                .allMatch(one -> one.at() == made.get(0).at());
    }

    /** The calls of the interface do nothing by default: one that the recorder forgot would be lost in silence. */
    @Test
    void an_exchange_that_is_recorded_has_each_call_of_its_own() {
        Class<?> recorded =
                recorder.exchange("GET", "https://orto.example/beds").getClass();

        assertThat(AdapterExchange.class.getMethods())
                .filteredOn(call -> !Modifier.isStatic(call.getModifiers()))
                .hasSizeGreaterThan(20)
                .allSatisfy(call -> assertThat(recorded.getMethod(call.getName(), call.getParameterTypes())
                                .getDeclaringClass())
                        .as(call.getName())
                        .isEqualTo(recorded));
    }

    @Test
    void headers_may_be_told_once_more_and_what_nobody_read_is_looked_at_when_the_test_ends() throws Exception {
        AdapterExchange exchange = recorder.exchange("GET", "https://orto.example/beds");
        exchange.requestHeader("Accept", "*/*");
        exchange.clearRequestHeaders()
                .requestHeader("Accept", "*/*")
                .requestHeader("Host", "orto.example")
                .status(500);
        BoundedBuffer body = exchange.buffer();
        exchange.responseBody(body, "text/plain");
        exchange.onTestEnd(() -> {
            body.add("no beds".getBytes(UTF_8), 0, 7);
            throw new IllegalStateException("and it throws");
        });

        ExchangeMade made = exchanges().get(0);
        assertThat(made.request().headers()).extracting(Header::name).containsExactly("Accept", "Host");
        assertThat(made.response().body().text()).isEqualTo("no beds");
        assertThat(made.attributes()).containsEntry("ended", "by the end of the test, before the response");
    }

    @Test
    void checks_are_about_the_exchange_that_was_over_last_or_the_one_they_name() throws Exception {
        Exchange first = recorder.exchange("GET", "https://orto.example/1").status(200);
        first.ended();
        Exchange second = recorder.exchange("GET", "https://orto.example/2").status(200);
        second.ended();
        recorder.gatherChecks();
        recorder.checked("about the second", null);
        assertThat(first.checked("about the first", new AssertionError("no basil")))
                .isTrue();

        Run run = read();
        Map<Integer, List<Entry.CheckEntry>> checks =
                ExchangeChecks.of(run.tests().get(0));
        List<Integer> ids = exchangesOf(run).stream().map(ExchangeMade::id).toList();
        assertThat(checks.get(ids.get(0))).extracting(Entry.CheckEntry::name).containsExactly("about the first");
        assertThat(checks.get(ids.get(1))).extracting(Entry.CheckEntry::name).containsExactly("about the second");
    }

    private void answer(byte[] body, String coding) {
        Exchange exchange =
                recorder.exchange("GET", "https://orto.example/beds").status(200);
        if (!coding.isEmpty()) exchange.responseHeader("Content-Encoding", coding);
        exchange.responseBody(body, "application/json").ended();
    }

    private static byte[] gzip(String text) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var gzip = new GZIPOutputStream(bytes)) {
            gzip.write(text.getBytes(UTF_8));
        }
        return bytes.toByteArray();
    }

    private static byte[] deflated(String text) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var deflater = new DeflaterOutputStream(bytes)) {
            deflater.write(text.getBytes(UTF_8));
        }
        return bytes.toByteArray();
    }

    private Run read() throws IOException {
        recorder.endTest(test, TestEnd.passed());
        return RunReader.read(recorder.folder());
    }

    private List<ExchangeMade> exchanges() throws IOException {
        return exchangesOf(read());
    }

    private static List<ExchangeMade> exchangesOf(Run run) {
        assertThat(run.problems()).isEmpty();
        return run.tests().get(0).entries().stream()
                .filter(Entry.ExchangeEntry.class::isInstance)
                .map(entry -> ((Entry.ExchangeEntry) entry).made())
                .toList();
    }

    private void assertNowhere(String secret) throws IOException {
        try (var files = Files.walk(recorder.folder())) {
            assertThat(files.filter(Files::isRegularFile))
                    .noneMatch(file -> contains(file, secret))
                    .isNotEmpty();
        }
    }

    private static boolean contains(Path file, String text) {
        try {
            return new String(Files.readAllBytes(file), java.nio.charset.StandardCharsets.ISO_8859_1).contains(text);
        } catch (IOException unreadable) {
            throw new java.io.UncheckedIOException(unreadable);
        }
    }
}
