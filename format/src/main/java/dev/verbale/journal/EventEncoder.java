package dev.verbale.journal;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.PaperKept;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonEncoding;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;

/**
 * Turns events into lines. Belongs to one thread at a time, so that its buffer and its generator can be reused: a new
 * generator for each event costs half as much again as the rest of the encoding.
 */
final class EventEncoder {

    /** What a buffer may keep between events; one giant note must not hold its memory for the rest of the run. */
    private static final int KEPT_BYTES = 1 << 16;

    private static final int GATHERED_DEPTH = 3;

    private LineBuffer buffer = new LineBuffer();
    private @Nullable JsonGenerator generator;

    /** The event as one line with its newline; valid until the next call. */
    LineBuffer encode(Event event) {
        try {
            return line(event);
        } catch (Throwable midway) {
            generator = null; // it stands in the middle of an object
            throw midway;
        }
    }

    private LineBuffer line(Event event) {
        if (buffer.capacity() > KEPT_BYTES) {
            buffer = new LineBuffer();
            generator = null;
        }
        buffer.reset();
        JsonGenerator json = generator;
        if (json == null) {
            json = JournalFormat.JSON.createGenerator(ObjectWriteContext.empty(), buffer, JsonEncoding.UTF8);
            generator = json;
        }
        json.writeStartObject();
        fields(json, event);
        json.writeEndObject();
        json.flush();
        buffer.write('\n');
        return buffer;
    }

    private static void fields(JsonGenerator json, Event event) {
        if (event instanceof StepStarted e) {
            head(json, "step-started", e.at());
            json.writeNumberProperty("id", e.id());
            in(json, e.in());
            if (e.kind() != StepKind.ACTION) text(json, "kind", e.kind().word());
            text(json, "name", e.name());
            text(json, "thread", e.thread());
        } else if (event instanceof StepEnded e) {
            head(json, "step-ended", e.at());
            json.writeNumberProperty("id", e.id());
            text(json, "outcome", e.outcome().word());
            failure(json, e.failure());
        } else if (event instanceof NoteWritten e) {
            head(json, "note", e.at());
            in(json, e.in());
            text(json, "text", e.text());
            text(json, "thread", e.thread());
        } else if (event instanceof TestStarted e) {
            testStarted(json, e);
        } else if (event instanceof TestEnded e) {
            head(json, "test-ended", e.at());
            json.writeNumberProperty("id", e.id());
            text(json, "outcome", e.outcome().word());
            text(json, "reason", e.reason());
            failure(json, e.failure());
        } else if (event instanceof PaperKept e) {
            paper(json, e);
        } else if (event instanceof DataNamed e) {
            head(json, "data", e.at());
            in(json, e.in());
            text(json, "name", e.name());
            text(json, "value", e.value());
        } else if (event instanceof ContainerStarted e) {
            head(json, "container-started", e.at());
            json.writeNumberProperty("id", e.id());
            in(json, e.in());
            text(json, "key", e.key());
            text(json, "name", e.name());
            text(json, "class", e.className());
            text(json, "method", e.methodName());
        } else if (event instanceof ContainerEnded e) {
            head(json, "container-ended", e.at());
            json.writeNumberProperty("id", e.id());
            text(json, "outcome", e.outcome().word());
            text(json, "reason", e.reason());
            failure(json, e.failure());
            if (e.notRun() > 0) json.writeNumberProperty("notRun", e.notRun());
        } else if (event instanceof FactStated e) {
            head(json, "fact", e.at());
            text(json, "name", e.name());
            text(json, "value", e.value());
        } else if (event instanceof ProblemMet e) {
            head(json, "problem", e.at());
            text(json, "text", e.text());
        } else if (event instanceof JournalOpened e) {
            journalOpened(json, e);
        } else if (event instanceof JournalEnded e) {
            head(json, "journal-ended", e.at());
            json.writeNumberProperty("missing", e.missing());
        } else {
            throw new IllegalArgumentException("no line is known for " + event.getClass());
        }
    }

    private static void testStarted(JsonGenerator json, TestStarted e) {
        head(json, "test-started", e.at());
        json.writeNumberProperty("id", e.id());
        in(json, e.in());
        text(json, "key", e.key());
        text(json, "name", e.name());
        text(json, "class", e.className());
        text(json, "method", e.methodName());
        text(json, "thread", e.thread());
        if (!e.tags().isEmpty()) {
            json.writeArrayPropertyStart("tags");
            for (String tag : e.tags()) json.writeString(tag);
            json.writeEndArray();
        }
    }

    private static void paper(JsonGenerator json, PaperKept e) {
        head(json, "paper", e.at());
        in(json, e.in());
        text(json, "name", e.name());
        text(json, "kind", e.kind());
        text(json, "mediaType", e.mediaType());
        text(json, "file", e.file());
        json.writeNumberProperty("size", e.size());
    }

    private static void journalOpened(JsonGenerator json, JournalOpened e) {
        head(json, "journal-opened", e.at());
        json.writeNumberProperty("format", e.format());
        text(json, "worker", e.worker());
        text(json, "wall", e.wall().toString());
        json.writeNumberProperty("pid", e.pid());
        text(json, "verbale", e.verbale());
    }

    private static void head(JsonGenerator json, String kind, long at) {
        json.writeStringProperty("event", kind);
        json.writeNumberProperty("at", at);
    }

    private static void in(JsonGenerator json, int in) {
        if (in != 0) json.writeNumberProperty("in", in);
    }

    private static void text(JsonGenerator json, String name, @Nullable String value) {
        if (value != null) json.writeStringProperty(name, value);
    }

    private static void failure(JsonGenerator json, @Nullable Failure failure) {
        if (failure == null) return;
        json.writeName("failure");
        failureObject(json, failure, GATHERED_DEPTH);
    }

    private static void failureObject(JsonGenerator json, Failure failure, int depth) {
        json.writeStartObject();
        text(json, "type", failure.type());
        text(json, "message", failure.message());
        text(json, "expected", failure.expected());
        text(json, "actual", failure.actual());
        text(json, "stack", failure.stack());
        List<Failure> gathered = failure.gathered();
        if (!gathered.isEmpty() && depth > 0) {
            json.writeArrayPropertyStart("gathered");
            for (Failure one : gathered) failureObject(json, one, depth - 1);
            json.writeEndArray();
        }
        json.writeEndObject();
    }
}
