package dev.verbale.cli;

import dev.verbale.otlp.RunTelemetry;
import dev.verbale.results.Run;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** What collects traces and logs. */
final class CollectorOptions {

    private static final String LOGGERS = "io.opentelemetry";

    /** Held, or what was set on it is forgotten. */
    private final Logger loggers = Logger.getLogger(LOGGERS);

    @Option(
            names = "--endpoint",
            paramLabel = "URL",
            description = {
                "otlp: the collector (OTEL_EXPORTER_OTLP_ENDPOINT)",
                "To which /v1/traces and /v1/logs are added. Left out: what OTEL_EXPORTER_OTLP_ENDPOINT says, or http://localhost:4318."
            })
    private @Nullable String endpoint;

    @Option(
            names = "--header",
            paramLabel = "NAME=VALUE",
            description = {
                "otlp: a header of each request",
                "May be repeated. OTEL_EXPORTER_OTLP_HEADERS adds to them, and keeps secrets off the command line."
            })
    private Map<String, String> headers = new LinkedHashMap<>();

    @Option(
            names = "--patience",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = "otlp: how long it is waited for (${DEFAULT-VALUE})")
    private int patience;

    /** Sends {@code read}, and says how much it was. */
    void send(Run read, CommandSpec spec) throws FailureMessages.NotWritten {
        if (patience < 1)
            throw new ParameterException(spec.commandLine(), "--patience takes seconds from 1, not " + patience);
        RunTelemetry telemetry = telemetry(spec);
        loggers.setLevel(Level.OFF); // what went wrong is said below, once
        RunTelemetry.Sent sent;
        try {
            sent = telemetry.send(read);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the run was not sent to " + address(), failed);
        }
        spec.commandLine()
                .getOut()
                .println(read.name() + ": " + sent.traces() + " traces with " + sent.spans() + " spans, and "
                        + sent.logs() + " log records, sent to " + address());
    }

    private RunTelemetry telemetry(CommandSpec spec) {
        try {
            return new RunTelemetry(URI.create(address()), headers(), Duration.ofSeconds(patience));
        } catch (IllegalArgumentException refused) {
            throw new ParameterException(spec.commandLine(), String.valueOf(refused.getMessage()), refused);
        }
    }

    private String address() {
        if (endpoint != null) return endpoint;
        String set = System.getenv("OTEL_EXPORTER_OTLP_ENDPOINT");
        return set == null || set.isBlank() ? "http://localhost:4318" : set.strip();
    }

    /** As OpenTelemetry's environment variable has them: {@code name=value,name=value}. */
    private Map<String, String> headers() {
        Map<String, String> all = new LinkedHashMap<>();
        String set = System.getenv("OTEL_EXPORTER_OTLP_HEADERS");
        for (String one : (set == null ? "" : set).split(",")) {
            int equals = one.indexOf('=');
            if (equals > 0)
                all.put(
                        one.substring(0, equals).strip(),
                        java.net.URLDecoder.decode(
                                one.substring(equals + 1).strip().replace("+", "%2B"),
                                java.nio.charset.StandardCharsets.UTF_8));
        }
        all.putAll(headers);
        return all;
    }
}
