package dev.verbale.otlp;

import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import io.opentelemetry.api.common.Attributes;
import io.opentelemetry.api.trace.Span;
import io.opentelemetry.api.trace.StatusCode;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A span while it is filled. What came late, such as evidence after a test, happened at its end: an event outside its span is none. */
record OpenSpan(Span span, Instant started, Instant ended) {

    void event(String name, Attributes attributes, Instant at) {
        Instant within = at.isBefore(started) ? started : at.isAfter(ended) ? ended : at;
        span.addEvent(name, attributes, within);
    }

    void end(Outcome outcome, @Nullable Failure failure) {
        if (failure != null && !failure.isReference()) {
            span.addEvent("exception", TestTelemetry.exception(failure), ended);
            for (Failure one : failure.gathered())
                if (!one.isReference()) span.addEvent("exception", TestTelemetry.exception(one), ended);
            if (outcome.needsAttention()) span.setAttribute("error.type", failure.type());
        }
        if (outcome.needsAttention())
            span.setStatus(StatusCode.ERROR, failure == null || failure.message() == null ? "" : failure.message());
        else if (outcome.equals(Outcome.PASSED)) span.setStatus(StatusCode.OK);
        span.end(ended);
    }
}
