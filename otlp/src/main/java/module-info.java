/** Sends runs as traces and logs. */
module dev.verbale.otlp {
    requires transitive dev.verbale.results;
    requires io.opentelemetry.api;
    requires io.opentelemetry.context;
    requires io.opentelemetry.common;
    requires io.opentelemetry.exporter.internal;
    requires io.opentelemetry.exporter.otlp;
    requires io.opentelemetry.sdk.common;
    requires io.opentelemetry.sdk.logs;
    requires io.opentelemetry.sdk.trace;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.otlp;
}
