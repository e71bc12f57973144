package dev.verbale.otlp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.protobuf.ByteString;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import io.opentelemetry.proto.common.v1.KeyValue;
import io.opentelemetry.proto.trace.v1.Span;
import io.opentelemetry.proto.trace.v1.Status;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a collector decodes. */
class RunTelemetryTest {

    private static final String HOSTILE = "\u0000 \uD800 \uD83C\uDF31 \u001B[31m";

    @TempDir
    Path folder;

    private Collector collector;
    private Run run;

    @BeforeEach
    void record() throws Exception {
        collector = new Collector();
        SampleRun sample = SampleRun.in(folder, "tonight");
        sample.test("passes", Outcome.PASSED, null);
        sample.test("fails", Outcome.FAILED, SampleRun.failure("dev.orto.Dry", "the bed is dry " + HOSTILE));
        sample.write(
                TestStarted.of(900_000, 900, "k", "waters " + HOSTILE)
                        .className("sample.Shed")
                        .methodName("waters")
                        .thread("main")
                        .tags(List.of("slow"))
                        .build(),
                StepStarted.of(900_100, 901, StepKind.ACTION, "outer").in(900).build(),
                StepStarted.of(900_200, 902, StepKind.ACTION, "inner").in(901).build(),
                LogWritten.of(900_250, 902, "stands still " + HOSTILE)
                        .level("warn")
                        .logger("dev.orto.Pump")
                        .context(Map.of("bed", "7"))
                        .build(),
                ExchangeMade.of(900_300, new ExchangeMade.Request("GET", "http://orto/seeds?q=1", List.of(), null))
                        .in(902)
                        .client("a client")
                        .response(new ExchangeMade.Response(503, List.of(), null))
                        .timing(new ExchangeMade.Timing(40_000L, Map.of()))
                        .build(),
                StepEnded.of(900_700, 902, Outcome.PASSED).build(),
                StepEnded.of(900_900, 901, Outcome.PASSED).build(),
                TestEnded.of(901_000, 900, Outcome.PASSED).build());
        run = sample.read();
    }

    @AfterEach
    void close() {
        collector.close();
    }

    private RunTelemetry telemetry() {
        return new RunTelemetry(collector.address(), Map.of("Authorization", "Bearer rain"), Duration.ofSeconds(30));
    }

    private Span span(String name) {
        return collector.spans.stream()
                .filter(one -> one.getName().startsWith(name))
                .findFirst()
                .orElseThrow();
    }

    private static Map<String, String> attributes(List<KeyValue> all) {
        return all.stream()
                .collect(Collectors.toMap(
                        KeyValue::getKey,
                        one -> one.getValue().hasIntValue()
                                ? Long.toString(one.getValue().getIntValue())
                                : one.getValue().getStringValue()));
    }

    private static long nanos(Instant moment) {
        return moment.getEpochSecond() * 1_000_000_000L + moment.getNano();
    }

    @Test
    void a_test_is_a_trace_and_what_happened_in_it_lies_below() throws Exception {
        RunTelemetry.Sent sent = telemetry().send(run);

        assertThat(sent).isEqualTo(new RunTelemetry.Sent(3, 6, 1));
        assertThat(collector.spans).hasSize(6);
        Span test = span("waters");
        Span outer = span("outer");
        Span inner = span("inner");
        Span exchange = span("GET");
        assertThat(test.getParentSpanId()).isEqualTo(ByteString.EMPTY);
        assertThat(outer.getParentSpanId()).isEqualTo(test.getSpanId());
        assertThat(inner.getParentSpanId()).isEqualTo(outer.getSpanId());
        assertThat(exchange.getParentSpanId()).isEqualTo(inner.getSpanId());
        assertThat(List.of(outer, inner, exchange))
                .allMatch(one -> one.getTraceId().equals(test.getTraceId()));
        assertThat(collector.spans.stream().map(Span::getTraceId).distinct()).hasSize(3);
        TestResult recorded = run.tests().stream()
                .filter(one -> one.key().equals("k"))
                .findFirst()
                .orElseThrow();
        assertThat(test.getStartTimeUnixNano()).isEqualTo(nanos(recorded.started()));
        assertThat(test.getEndTimeUnixNano()).isEqualTo(nanos(recorded.started().plus(recorded.duration())));
        assertThat(exchange.getEndTimeUnixNano() - exchange.getStartTimeUnixNano())
                .isEqualTo(40_000_000);
        assertThat(exchange.getName()).isEqualTo("GET http://orto/seeds");
        assertThat(exchange.getKind()).isEqualTo(Span.SpanKind.SPAN_KIND_CLIENT);
        assertThat(attributes(exchange.getAttributesList()))
                .containsEntry("http.response.status_code", "503")
                .containsEntry("url.full", "http://orto/seeds?q=1");
        assertThat(attributes(test.getAttributesList()))
                .containsEntry("test.case.name", "k")
                .containsEntry("test.suite.name", "sample.Shed")
                .containsEntry("test.case.result.status", "pass");
        assertThat(collector.about).containsEntry("verbale.run.name", "tonight").containsKey("service.name");
        assertThat(collector.authorizations).containsOnly("Bearer rain");
    }

    @Test
    void a_failure_is_an_exception_and_a_log_line_belongs_to_its_step() throws Exception {
        telemetry().send(run);

        Span failed = span("fails");
        assertThat(failed.getStatus().getCode()).isEqualTo(Status.StatusCode.STATUS_CODE_ERROR);
        assertThat(failed.getEventsList()).singleElement().satisfies(event -> {
            assertThat(event.getName()).isEqualTo("exception");
            assertThat(attributes(event.getAttributesList()))
                    .containsEntry("exception.type", "dev.orto.Dry")
                    .containsKey("exception.stacktrace");
            assertThat(attributes(event.getAttributesList()).get("exception.message"))
                    .startsWith("the bed is dry");
        });
        assertThat(collector.logs).singleElement().satisfies(line -> {
            assertThat(line.getBody().getStringValue())
                    .startsWith("stands still")
                    .contains("\uD83C\uDF31");
            assertThat(line.getSeverityText()).isEqualTo("warn");
            assertThat(line.getSpanId()).isEqualTo(span("inner").getSpanId());
            assertThat(line.getTraceId()).isEqualTo(span("inner").getTraceId());
            assertThat(attributes(line.getAttributesList())).containsEntry("verbale.context.bed", "7");
        });
    }

    @Test
    void what_is_sent_twice_has_the_same_ids() throws Exception {
        telemetry().send(run);
        List<Span> first = List.copyOf(collector.spans);
        collector.spans.clear();

        telemetry().send(run);

        assertThat(collector.spans).containsExactlyElementsOf(first);
    }

    @Test
    void a_large_run_is_sent_whole() throws Exception {
        SampleRun sample = SampleRun.in(folder, "large");
        for (int i = 0; i < 3_000; i++) sample.test("test" + i, Outcome.PASSED, null);

        assertThat(telemetry().send(sample.read()).spans()).isEqualTo(3_000);
        assertThat(collector.spans.stream().map(Span::getSpanId).distinct()).hasSize(3_000);
    }

    @ParameterizedTest
    @ValueSource(ints = {400, 401, 404, 413, 500})
    void a_collector_that_refuses_is_an_error_that_says_how(int status) throws Exception {
        collector.status = status;

        assertThatThrownBy(() -> telemetry().send(run))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("spans were refused")
                .hasMessageContaining(Integer.toString(status));
    }

    @Test
    void what_was_taken_before_it_refused_is_said() throws Exception {
        SampleRun sample = SampleRun.in(folder, "large");
        for (int i = 0; i < 1_200; i++) sample.test("test" + i, Outcome.PASSED, null);
        collector.status = 400;
        collector.afterRequests = 1;

        assertThatThrownBy(() -> telemetry().send(sample.read())).hasMessageContaining("512 had been taken");
    }

    @Test
    void nobody_there_is_an_error() throws Exception {
        int port;
        try (var free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        var nobody = new RunTelemetry(URI.create("http://127.0.0.1:" + port), Map.of(), Duration.ofSeconds(20));

        assertThatThrownBy(() -> nobody.send(run))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("nobody answers there");
    }

    @ParameterizedTest
    @ValueSource(strings = {"localhost:4318", "ftp://localhost", "file:///etc/passwd", "http:", "/v1"})
    void what_is_no_address_of_a_collector_is_refused(String address) {
        assertThatThrownBy(() -> new RunTelemetry(
                        URI.create(address.equals("http:") ? "http:/x" : address), Map.of(), Duration.ofSeconds(1)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("http://localhost:4318");
    }
}
