package dev.verbale.otlp;

import dev.verbale.results.ContainerResult;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import io.opentelemetry.api.common.Attributes;
import io.opentelemetry.api.common.AttributesBuilder;
import io.opentelemetry.exporter.otlp.http.logs.OtlpHttpLogRecordExporter;
import io.opentelemetry.exporter.otlp.http.logs.OtlpHttpLogRecordExporterBuilder;
import io.opentelemetry.exporter.otlp.http.trace.OtlpHttpSpanExporter;
import io.opentelemetry.exporter.otlp.http.trace.OtlpHttpSpanExporterBuilder;
import io.opentelemetry.sdk.common.export.RetryPolicy;
import io.opentelemetry.sdk.logs.data.LogRecordData;
import io.opentelemetry.sdk.resources.Resource;
import io.opentelemetry.sdk.trace.data.SpanData;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.Map;

/**
 * Sends a run as traces and logs by OTLP over HTTP (protobuf, OpenTelemetry Protocol 1.x), with the exporters of the standard SDK. Each
 * attempt of a test is a trace of its own: the test is its root span, steps and exchanges are spans below it, log lines are log records
 * that belong to their span. Names of attributes are those of the semantic conventions where these have one ({@code test.*}, {@code
 * http.*}, {@code exception.*}), else they begin with {@code verbale.}. Ids hang on the run and the test only: what is sent twice has the
 * same ids.
 *
 * @since 0.2.0
 */
public final class RunTelemetry {

    /** What the semantic conventions call the facts that they know. */
    private static final Map<String, String> CONVENTIONS = Map.of(
            "commit", "vcs.ref.head.revision",
            "branch", "vcs.ref.head.name",
            "target branch", "vcs.ref.base.name",
            "host", "host.name",
            "os", "os.description",
            "CI job", "cicd.pipeline.name",
            "CI number", "cicd.pipeline.run.id",
            "CI link", "cicd.pipeline.run.url.full");

    private final URI endpoint;
    private final Map<String, String> headers;
    private final Duration patience;

    /**
     * @param endpoint of the collector, such as {@code http://localhost:4318}; {@code /v1/traces} and {@code /v1/logs} are added
     * @param headers that each request has, such as {@code Authorization}
     * @param patience how long one request may take at the most, with all its repetitions
     * @throws IllegalArgumentException where the endpoint is no address of HTTP
     */
    public RunTelemetry(URI endpoint, Map<String, String> headers, Duration patience) {
        String scheme = String.valueOf(endpoint.getScheme());
        if (!scheme.matches("(?i)https?") || endpoint.getHost() == null)
            throw new IllegalArgumentException(
                    "'" + endpoint + "' is no address of a collector, such as http://localhost:4318");
        this.endpoint = endpoint;
        this.headers = Map.copyOf(headers);
        this.patience = patience;
    }

    /**
     * What was taken.
     *
     * @param traces one for each attempt of a test, and for each class that broke outside its tests
     */
    public record Sent(long traces, long spans, long logs) {}

    /**
     * Sends all of {@code run}, and waits until it was taken.
     *
     * @throws IOException where the collector is not there, or refuses it; what it took until then stays there
     */
    public Sent send(Run run) throws IOException {
        try (OtlpHttpSpanExporter spans = spanExporter();
                OtlpHttpLogRecordExporter logs = logExporter()) {
            var sentSpans = new Batches<SpanData>("spans", spans::export, patience);
            var sentLogs = new Batches<LogRecordData>("log records", logs::export, patience);
            try (var telemetry = new TestTelemetry(
                    resource(run), run.name() + "\0" + run.started(), sentSpans::add, sentLogs::add)) {
                for (TestResult test : run.tests()) {
                    telemetry.add(test);
                    sentSpans.sendWhereFull();
                    sentLogs.sendWhereFull();
                }
                for (ContainerResult broken : run.brokenContainers()) telemetry.add(broken);
            }
            sentSpans.send();
            sentLogs.send();
            return new Sent(run.tests().size() + run.counts().broken(), sentSpans.sent(), sentLogs.sent());
        }
    }

    private static Resource resource(Run run) {
        AttributesBuilder about = Attributes.builder()
                .put("service.name", run.facts().getOrDefault("project", "tests"))
                .put("verbale.run.name", run.name());
        run.facts().forEach((name, value) -> about.put("verbale.fact." + name.replace(' ', '_'), value));
        CONVENTIONS.forEach((fact, name) -> {
            String value = run.facts().get(fact);
            if (value != null) about.put(name, value);
        });
        return Resource.create(about.build());
    }

    private String address(String path) {
        return endpoint.toString().replaceFirst("/+$", "") + path;
    }

    private OtlpHttpSpanExporter spanExporter() {
        OtlpHttpSpanExporterBuilder builder = OtlpHttpSpanExporter.builder()
                .setEndpoint(address("/v1/traces"))
                .setCompression("gzip")
                .setTimeout(patience)
                .setRetryPolicy(RetryPolicy.getDefault());
        headers.forEach(builder::addHeader);
        return builder.build();
    }

    private OtlpHttpLogRecordExporter logExporter() {
        OtlpHttpLogRecordExporterBuilder builder = OtlpHttpLogRecordExporter.builder()
                .setEndpoint(address("/v1/logs"))
                .setCompression("gzip")
                .setTimeout(patience)
                .setRetryPolicy(RetryPolicy.getDefault());
        headers.forEach(builder::addHeader);
        return builder.build();
    }
}
