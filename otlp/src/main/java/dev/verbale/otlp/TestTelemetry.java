package dev.verbale.otlp;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import io.opentelemetry.api.common.Attributes;
import io.opentelemetry.api.common.AttributesBuilder;
import io.opentelemetry.api.logs.LogRecordBuilder;
import io.opentelemetry.api.logs.Logger;
import io.opentelemetry.api.logs.Severity;
import io.opentelemetry.api.trace.Span;
import io.opentelemetry.api.trace.SpanBuilder;
import io.opentelemetry.api.trace.Tracer;
import io.opentelemetry.context.Context;
import io.opentelemetry.sdk.logs.LogRecordProcessor;
import io.opentelemetry.sdk.logs.ReadWriteLogRecord;
import io.opentelemetry.sdk.logs.SdkLoggerProvider;
import io.opentelemetry.sdk.logs.data.LogRecordData;
import io.opentelemetry.sdk.resources.Resource;
import io.opentelemetry.sdk.trace.ReadWriteSpan;
import io.opentelemetry.sdk.trace.ReadableSpan;
import io.opentelemetry.sdk.trace.SdkTracerProvider;
import io.opentelemetry.sdk.trace.SpanLimits;
import io.opentelemetry.sdk.trace.SpanProcessor;
import io.opentelemetry.sdk.trace.data.SpanData;
import io.opentelemetry.sdk.trace.samplers.Sampler;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Tests as spans and log records, one after the other. */
final class TestTelemetry implements AutoCloseable {

    private static final String SCOPE = "dev.verbale";
    private static final int MANY = 100_000;

    /** Deeper ones lie beside one another: whoever draws them, or reads them, goes by recursion. */
    private static final int DEEPEST = 500;

    private final RunIds ids;
    private final SdkTracerProvider tracers;
    private final SdkLoggerProvider loggers;
    private final Tracer tracer;
    private final Logger logger;

    TestTelemetry(Resource resource, String run, Consumer<SpanData> spans, Consumer<LogRecordData> logs) {
        ids = new RunIds(run);
        tracers = SdkTracerProvider.builder()
                .setResource(resource)
                .setIdGenerator(ids)
                .setSampler(Sampler.alwaysOn())
                .setSpanLimits(SpanLimits.builder()
                        .setMaxNumberOfEvents(MANY)
                        .setMaxNumberOfAttributes(MANY)
                        .build())
                .addSpanProcessor(new Ended(spans))
                .build();
        loggers = SdkLoggerProvider.builder()
                .setResource(resource)
                .addLogRecordProcessor(new Emitted(logs))
                .build();
        tracer = tracers.get(SCOPE);
        logger = loggers.get(SCOPE);
    }

    private record Ended(Consumer<SpanData> spans) implements SpanProcessor {
        @Override
        public void onStart(Context parent, ReadWriteSpan span) {}

        @Override
        public boolean isStartRequired() {
            return false;
        }

        @Override
        public void onEnd(ReadableSpan span) {
            spans.accept(span.toSpanData());
        }

        @Override
        public boolean isEndRequired() {
            return true;
        }
    }

    private record Emitted(Consumer<LogRecordData> logs) implements LogRecordProcessor {
        @Override
        public void onEmit(Context context, ReadWriteLogRecord line) {
            logs.accept(line.toLogRecordData());
        }
    }

    void add(TestResult test) {
        ids.begin(test.id() + "\0" + test.attempt().number() + "\0" + test.started());
        SpanBuilder builder = tracer.spanBuilder(test.name())
                .setNoParent()
                .setStartTimestamp(test.started())
                .setAttribute("test.case.name", test.key())
                .setAttribute("verbale.outcome", test.outcome().word())
                .setAttribute("verbale.attempt", (long) test.attempt().number())
                .setAttribute("verbale.superseded", test.superseded())
                .setAttribute("thread.name", test.thread())
                .setAttribute("verbale.worker", test.worker());
        if (test.outcome().needsAttention()) builder.setAttribute("test.case.result.status", "fail");
        else if (test.outcome().equals(Outcome.PASSED)) builder.setAttribute("test.case.result.status", "pass");
        if (!test.module().isEmpty()) builder.setAttribute("verbale.module", test.module());
        if (test.className() != null) builder.setAttribute("test.suite.name", test.className());
        if (test.methodName() != null)
            builder.setAttribute("code.function.name", test.className() + "." + test.methodName());
        if (!test.tags().isEmpty())
            builder.setAttribute(io.opentelemetry.api.common.AttributeKey.stringArrayKey("verbale.tags"), test.tags());
        Span span = builder.startSpan();
        var open = new OpenSpan(span, test.started(), test.started().plus(test.duration()));
        entries(test.entries(), open, 0);
        open.end(test.outcome(), test.failure());
    }

    /** A class that broke outside its tests: they say nothing of it. */
    void add(ContainerResult broken) {
        ids.begin(broken.key() + "\0class\0" + broken.started());
        Span span = tracer.spanBuilder(broken.name())
                .setNoParent()
                .setStartTimestamp(broken.started())
                .setAttribute("test.suite.name", broken.className() == null ? broken.key() : broken.className())
                .setAttribute("test.suite.run.status", "failure")
                .setAttribute("verbale.outcome", broken.outcome().word())
                .setAttribute("verbale.not_run", (long) broken.notRun())
                .setAttribute("verbale.worker", broken.worker())
                .startSpan();
        var open = new OpenSpan(span, broken.started(), broken.started().plus(broken.duration()));
        entries(broken.entries(), open, 0);
        open.end(broken.outcome(), broken.failure());
    }

    private void entries(List<Entry> entries, OpenSpan in, int depth) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.StepEntry step) step(step, in, depth);
            else if (entry instanceof Entry.ExchangeEntry exchange) ExchangeSpan.add(exchange, in.span(), tracer);
            else if (entry instanceof Entry.LogEntry line) line(line, in);
            else if (entry instanceof Entry.CheckEntry check) check(check, in);
            else if (entry instanceof Entry.DataEntry data)
                in.event(
                        "data",
                        Attributes.builder()
                                .put("verbale.name", data.name())
                                .put("verbale.value", data.value())
                                .build(),
                        data.at());
            else if (entry instanceof Entry.AttachmentEntry attached)
                in.event(
                        "attachment",
                        Attributes.builder()
                                .put("verbale.name", attached.name())
                                .put("file.path", attached.stored().path())
                                .put("file.size", attached.stored().size())
                                .build(),
                        attached.at());
            else if (entry instanceof Entry.UnknownEntry unknown && depth < DEEPEST)
                entries(unknown.entries(), in, depth + 1);
        }
    }

    private void step(Entry.StepEntry step, OpenSpan in, int depth) {
        Span span = tracer.spanBuilder(step.name())
                .setParent(Context.root().with(in.span()))
                .setStartTimestamp(step.at())
                .setAttribute("verbale.step.kind", step.kind().word())
                .setAttribute("verbale.outcome", step.outcome().word())
                .startSpan();
        var open = new OpenSpan(span, step.at(), step.at().plus(step.duration()));
        if (depth < DEEPEST) entries(step.entries(), open, depth + 1);
        open.end(step.outcome(), step.failure());
    }

    static Attributes exception(Failure failure) {
        AttributesBuilder about =
                Attributes.builder().put("exception.type", failure.type()).put("exception.stacktrace", failure.stack());
        if (failure.message() != null) about.put("exception.message", failure.message());
        return about.build();
    }

    private static void check(Entry.CheckEntry check, OpenSpan in) {
        AttributesBuilder about = Attributes.builder()
                .put("verbale.name", check.name())
                .put("verbale.outcome", check.outcome().word());
        if (check.failure() != null && check.failure().message() != null)
            about.put("exception.message", check.failure().message());
        in.event("check", about.build(), check.at());
    }

    private void line(Entry.LogEntry line, OpenSpan in) {
        LogRecordBuilder builder = logger.logRecordBuilder()
                .setContext(Context.root().with(in.span()))
                .setTimestamp(line.at())
                .setBody(line.text())
                .setSeverity(severity(line.level()));
        if (line.level() != null) builder.setSeverityText(line.level());
        var about = Attributes.builder();
        if (line.logger() != null) about.put("verbale.logger", line.logger());
        if (line.written().marker() != null)
            about.put("verbale.marker", line.written().marker());
        if (line.thread() != null) about.put("thread.name", line.thread());
        line.context().forEach((name, value) -> about.put("verbale.context." + name, value));
        if (line.failure() != null && !line.failure().isReference()) about.putAll(exception(line.failure()));
        builder.setAllAttributes(about.build()).emit();
    }

    private static Severity severity(@Nullable String level) {
        return switch (level == null ? "" : level.toLowerCase(Locale.ROOT)) {
            case "trace", "finest", "finer" -> Severity.TRACE;
            case "debug", "fine", "config" -> Severity.DEBUG;
            case "info" -> Severity.INFO;
            case "warn", "warning" -> Severity.WARN;
            case "error", "severe" -> Severity.ERROR;
            case "fatal" -> Severity.FATAL;
            default -> Severity.UNDEFINED_SEVERITY_NUMBER;
        };
    }

    @Override
    public void close() {
        tracers.close();
        loggers.close();
    }
}
