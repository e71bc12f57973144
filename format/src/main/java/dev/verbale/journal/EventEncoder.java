package dev.verbale.journal;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.PaperKept;
import dev.verbale.event.PaperPromised;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.io.SerializedString;

/**
 * Turns events into lines. Belongs to one thread at a time, so that its buffer and its generator can be reused: a new
 * generator for each event costs half as much again as the rest of the encoding.
 */
final class EventEncoder {

    /** What a buffer may keep between events; one giant note must not hold its memory for the rest of the run. */
    private static final int KEPT_BYTES = 1 << 16;

    private static final int GATHERED_DEPTH = 3;

    // Encoded once: they are half of the bytes of a line.
    private static final SerializedString ABOUT = new SerializedString("about");
    private static final SerializedString ADDRESS = new SerializedString("address");
    private static final SerializedString ATTRIBUTES = new SerializedString("attributes");
    private static final SerializedString BODY = new SerializedString("body");
    private static final SerializedString CLIENT = new SerializedString("client");
    private static final SerializedString CUT = new SerializedString("cut");
    private static final SerializedString DECODED = new SerializedString("decoded");
    private static final SerializedString FAILED = new SerializedString("failed");
    private static final SerializedString HEADERS = new SerializedString("headers");
    private static final SerializedString HEAD = new SerializedString("head");
    private static final SerializedString FILE_NAME = new SerializedString("fileName");
    private static final SerializedString LEFT_OUT = new SerializedString("leftOut");
    private static final SerializedString PARTS = new SerializedString("parts");
    private static final SerializedString TRACE = new SerializedString("trace");
    private static final SerializedString PROTOCOL = new SerializedString("protocol");
    private static final SerializedString REQUEST = new SerializedString("request");
    private static final SerializedString RESPONSE = new SerializedString("response");
    private static final SerializedString STATUS = new SerializedString("status");
    private static final SerializedString TIMINGS = new SerializedString("timings");
    private static final SerializedString URL = new SerializedString("url");
    private static final SerializedString BEGINS = new SerializedString("begins");
    private static final SerializedString CONTEXT = new SerializedString("context");
    private static final SerializedString COST = new SerializedString("cost");
    private static final SerializedString LEVEL = new SerializedString("level");
    private static final SerializedString LINKS = new SerializedString("links");
    private static final SerializedString LOGGER = new SerializedString("logger");
    private static final SerializedString MICROS = new SerializedString("micros");
    private static final SerializedString MISSING_BY_KIND = new SerializedString("missingByKind");
    private static final SerializedString OWNER = new SerializedString("owner");
    private static final SerializedString PROMISE = new SerializedString("promise");
    private static final SerializedString SEVERITY = new SerializedString("severity");
    private static final SerializedString SHA256 = new SerializedString("sha256");
    private static final SerializedString ACTUAL = new SerializedString("actual");
    private static final SerializedString CLASS = new SerializedString("class");
    private static final SerializedString EXPECTED = new SerializedString("expected");
    private static final SerializedString FAILURE = new SerializedString("failure");
    private static final SerializedString FILE = new SerializedString("file");
    private static final SerializedString FORMAT = new SerializedString("format");
    private static final SerializedString GATHERED = new SerializedString("gathered");
    private static final SerializedString ID = new SerializedString("id");
    private static final SerializedString IN = new SerializedString("in");
    private static final SerializedString KEY = new SerializedString("key");
    private static final SerializedString KIND = new SerializedString("kind");
    private static final SerializedString MEDIA_TYPE = new SerializedString("mediaType");
    private static final SerializedString MESSAGE = new SerializedString("message");
    private static final SerializedString METHOD = new SerializedString("method");
    private static final SerializedString MISSING = new SerializedString("missing");
    private static final SerializedString NAME = new SerializedString("name");
    private static final SerializedString NOT_RUN = new SerializedString("notRun");
    private static final SerializedString OUTCOME = new SerializedString("outcome");
    private static final SerializedString PID = new SerializedString("pid");
    private static final SerializedString REASON = new SerializedString("reason");
    private static final SerializedString SIZE = new SerializedString("size");
    private static final SerializedString STACK = new SerializedString("stack");
    private static final SerializedString TAGS = new SerializedString("tags");
    private static final SerializedString TEXT = new SerializedString("text");
    private static final SerializedString THREAD = new SerializedString("thread");
    private static final SerializedString TYPE = new SerializedString("type");
    private static final SerializedString VALUE = new SerializedString("value");
    private static final SerializedString VERBALE = new SerializedString("verbale");
    private static final SerializedString WALL = new SerializedString("wall");
    private static final SerializedString WORKER = new SerializedString("worker");

    private static final Head EXCHANGE = new Head("exchange");
    private static final Head LOG = new Head("log");
    private static final Head CHECK = new Head("check");
    private static final Head STEP_BUDGET = new Head("step-budget");
    private static final Head PAPER_PROMISED = new Head("paper-promised");
    private static final Head TEST_DESCRIBED = new Head("test-described");
    private static final Head STEP_STARTED = new Head("step-started");
    private static final Head STEP_ENDED = new Head("step-ended");
    private static final Head NOTE_EVENT = new Head("note");
    private static final Head TEST_ENDED = new Head("test-ended");
    private static final Head DATA_EVENT = new Head("data");
    private static final Head CONTAINER_STARTED = new Head("container-started");
    private static final Head CONTAINER_ENDED = new Head("container-ended");
    private static final Head FACT_EVENT = new Head("fact");
    private static final Head PROBLEM_EVENT = new Head("problem");
    private static final Head EVENTS_MISSED = new Head("events-missed");
    private static final Head JOURNAL_ENDED = new Head("journal-ended");
    private static final Head TEST_STARTED = new Head("test-started");
    private static final Head PAPER_EVENT = new Head("paper");
    private static final Head JOURNAL_OPENED = new Head("journal-opened");

    private final TextFilter filter;
    private LineBuffer buffer = new LineBuffer();
    private @Nullable JsonGenerator generator;

    EventEncoder(TextFilter filter) {
        this.filter = filter;
    }

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
            json = JsonOut.generator(buffer);
            generator = json;
        }
        json.writeStartObject();
        fields(json, event);
        json.writeEndObject();
        json.flush();
        buffer.write('\n');
        return buffer;
    }

    private void fields(JsonGenerator json, Event event) {
        if (event instanceof StepStarted e) {
            head(json, STEP_STARTED, e.at());
            number(json, ID, e.id());
            in(json, e.in());
            if (e.kind() != StepKind.ACTION) word(json, KIND, e.kind().word());
            text(json, NAME, e.name());
            text(json, THREAD, e.thread());
        } else if (event instanceof StepEnded e) {
            head(json, STEP_ENDED, e.at());
            number(json, ID, e.id());
            word(json, OUTCOME, e.outcome().word());
            text(json, REASON, e.reason());
            failure(json, e.failure());
        } else if (event instanceof NoteWritten e) {
            head(json, NOTE_EVENT, e.at());
            in(json, e.in());
            text(json, TEXT, e.text());
            text(json, THREAD, e.thread());
        } else if (event instanceof TestStarted e) {
            testStarted(json, e);
        } else if (event instanceof TestEnded e) {
            head(json, TEST_ENDED, e.at());
            number(json, ID, e.id());
            word(json, OUTCOME, e.outcome().word());
            text(json, REASON, e.reason());
            failure(json, e.failure());
        } else if (event instanceof PaperKept e) {
            paper(json, e);
        } else if (event instanceof DataNamed e) {
            head(json, DATA_EVENT, e.at());
            in(json, e.in());
            text(json, NAME, e.name());
            text(json, VALUE, e.value());
        } else if (event instanceof ContainerStarted e) {
            head(json, CONTAINER_STARTED, e.at());
            number(json, ID, e.id());
            in(json, e.in());
            text(json, KEY, e.key());
            text(json, NAME, e.name());
            text(json, CLASS, e.className());
            text(json, METHOD, e.methodName());
        } else if (event instanceof ContainerEnded e) {
            head(json, CONTAINER_ENDED, e.at());
            number(json, ID, e.id());
            word(json, OUTCOME, e.outcome().word());
            text(json, REASON, e.reason());
            failure(json, e.failure());
            if (e.notRun() > 0) number(json, NOT_RUN, e.notRun());
        } else if (event instanceof FactStated e) {
            head(json, FACT_EVENT, e.at());
            text(json, NAME, e.name());
            text(json, VALUE, e.value());
        } else if (event instanceof ProblemMet e) {
            head(json, PROBLEM_EVENT, e.at());
            text(json, TEXT, e.text());
        } else if (event instanceof LogWritten e) {
            log(json, e);
        } else if (event instanceof ExchangeMade e) {
            exchange(json, e);
        } else if (event instanceof CheckMade e) {
            head(json, CHECK, e.at());
            in(json, e.in());
            text(json, NAME, e.name());
            word(json, OUTCOME, e.outcome().word());
            if (e.about() != 0) number(json, ABOUT, e.about());
            failure(json, e.failure());
        } else if (event instanceof StepBudgeted e) {
            head(json, STEP_BUDGET, e.at());
            number(json, ID, e.id());
            number(json, MICROS, e.micros());
        } else if (event instanceof PaperPromised e) {
            head(json, PAPER_PROMISED, e.at());
            in(json, e.in());
            number(json, ID, e.id());
            text(json, NAME, e.name());
            text(json, KIND, e.kind());
        } else if (event instanceof TestDescribed e) {
            described(json, e);
        } else if (event instanceof JournalOpened e) {
            journalOpened(json, e);
        } else if (event instanceof JournalEnded e) {
            head(json, JOURNAL_ENDED, e.at());
            number(json, MISSING, e.missing());
            if (!e.missingByKind().isEmpty()) numbers(json, MISSING_BY_KIND, e.missingByKind());
            number(json, COST, e.cost());
        } else if (event instanceof EventsMissed e) {
            head(json, EVENTS_MISSED, e.at());
            numbers(json, MISSING_BY_KIND, e.byKind());
        } else {
            throw new IllegalArgumentException("no line is known for " + event.getClass());
        }
    }

    private void testStarted(JsonGenerator json, TestStarted e) {
        head(json, TEST_STARTED, e.at());
        number(json, ID, e.id());
        in(json, e.in());
        text(json, KEY, e.key());
        text(json, NAME, e.name());
        text(json, CLASS, e.className());
        text(json, METHOD, e.methodName());
        text(json, THREAD, e.thread());
        if (!e.tags().isEmpty()) {
            json.writeName(TAGS);
            json.writeStartArray();
            for (String tag : e.tags()) json.writeString(filtered(tag));
            json.writeEndArray();
        }
    }

    private void paper(JsonGenerator json, PaperKept e) {
        head(json, PAPER_EVENT, e.at());
        in(json, e.in());
        text(json, NAME, e.name());
        text(json, KIND, e.kind());
        text(json, MEDIA_TYPE, e.mediaType());
        text(json, FILE, e.file());
        number(json, SIZE, e.size());
        if (e.sha256() != null) word(json, SHA256, e.sha256());
        if (e.promise() != 0) number(json, PROMISE, e.promise());
        if (e.begins() != 0) number(json, BEGINS, e.begins());
    }

    private void exchange(JsonGenerator json, ExchangeMade e) {
        head(json, EXCHANGE, e.at());
        if (e.id() != 0) number(json, ID, e.id());
        in(json, e.in());
        text(json, CLIENT, e.client());
        text(json, METHOD, e.method());
        text(json, URL, e.url());
        text(json, PROTOCOL, e.protocol());
        if (e.micros() >= 0) number(json, MICROS, e.micros());
        if (!e.timings().isEmpty()) numbers(json, TIMINGS, e.timings());
        message(json, REQUEST, e.request());
        if (e.status() != 0) number(json, STATUS, e.status());
        if (e.response() != null) message(json, RESPONSE, e.response());
        text(json, FAILED, e.failure());
        text(json, THREAD, e.thread());
        if (e.trace() != null) {
            json.writeName(TRACE);
            json.writeStartObject();
            word(json, ID, e.trace().id());
            text(json, ADDRESS, e.trace().address());
            json.writeEndObject();
        }
        texts(json, ATTRIBUTES, e.attributes());
    }

    private void message(JsonGenerator json, SerializedString name, ExchangeMade.Message message) {
        json.writeName(name);
        json.writeStartObject();
        json.writeName(HEADERS);
        json.writeStartArray();
        for (ExchangeMade.Header header : message.headers()) {
            json.writeStartObject();
            text(json, NAME, header.name());
            text(json, VALUE, header.value());
            json.writeEndObject();
        }
        json.writeEndArray();
        if (message.body() != null) body(json, message.body());
        json.writeEndObject();
    }

    private void body(JsonGenerator json, ExchangeMade.Body body) {
        json.writeName(BODY);
        json.writeStartObject();
        text(json, MEDIA_TYPE, body.mediaType());
        number(json, SIZE, body.size());
        if (body.decoded() != body.size()) number(json, DECODED, body.decoded());
        text(json, TEXT, body.text());
        if (body.isCut()) number(json, CUT, 1);
        text(json, FILE, body.file());
        text(json, LEFT_OUT, body.leftOut());
        if (!body.parts().isEmpty()) {
            json.writeName(PARTS);
            json.writeStartArray();
            for (ExchangeMade.Part part : body.parts()) {
                json.writeStartObject();
                text(json, NAME, part.name());
                text(json, FILE_NAME, part.fileName());
                text(json, HEAD, part.head());
                body(json, part.body());
                json.writeEndObject();
            }
            json.writeEndArray();
        }
        json.writeEndObject();
    }

    private void texts(JsonGenerator json, SerializedString name, Map<String, String> texts) {
        if (texts.isEmpty()) return;
        json.writeName(name);
        json.writeStartObject();
        texts.forEach((key, value) -> json.writeStringProperty(filtered(key), filtered(value)));
        json.writeEndObject();
    }

    private void numbers(JsonGenerator json, SerializedString name, Map<String, Long> numbers) {
        json.writeName(name);
        json.writeStartObject();
        numbers.forEach((key, number) -> json.writeNumberProperty(filtered(key), number));
        json.writeEndObject();
    }

    private void log(JsonGenerator json, LogWritten e) {
        head(json, LOG, e.at());
        in(json, e.in());
        text(json, LEVEL, e.level());
        text(json, LOGGER, e.logger());
        text(json, TEXT, e.text());
        text(json, THREAD, e.thread());
        texts(json, CONTEXT, e.context());
        failure(json, e.failure());
    }

    private void described(JsonGenerator json, TestDescribed e) {
        head(json, TEST_DESCRIBED, e.at());
        number(json, ID, e.id());
        text(json, TEXT, e.text());
        text(json, SEVERITY, e.severity());
        text(json, OWNER, e.owner());
        if (e.links().isEmpty()) return;
        json.writeName(LINKS);
        json.writeStartArray();
        for (TestDescribed.Link link : e.links()) {
            json.writeStartObject();
            text(json, NAME, link.name());
            text(json, ADDRESS, link.address());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void journalOpened(JsonGenerator json, JournalOpened e) {
        head(json, JOURNAL_OPENED, e.at());
        number(json, FORMAT, e.format());
        word(json, WORKER, e.worker());
        word(json, WALL, WallClockText.of(e.wall()));
        number(json, PID, e.pid());
        word(json, VERBALE, e.verbale());
    }

    private static void head(JsonGenerator json, Head kind, long at) {
        json.writeName(kind);
        json.writeNumber(at);
    }

    private static void in(JsonGenerator json, int in) {
        if (in != 0) number(json, IN, in);
    }

    private void text(JsonGenerator json, SerializedString name, @Nullable String value) {
        if (value == null) return;
        json.writeName(name);
        json.writeString(filtered(value));
    }

    /** As it may be written: masked, and without halves of characters, which no UTF-8 can hold. */
    private String filtered(String text) {
        return WellFormedText.of(filter.filtered(text));
    }

    /** One of our own words, which hold nothing to hide. */
    private static void word(JsonGenerator json, SerializedString name, String word) {
        json.writeName(name);
        json.writeString(word);
    }

    private static void number(JsonGenerator json, SerializedString name, long value) {
        json.writeName(name);
        json.writeNumber(value);
    }

    private void failure(JsonGenerator json, @Nullable Failure failure) {
        if (failure == null) return;
        json.writeName(FAILURE);
        failureObject(json, failure, GATHERED_DEPTH);
    }

    private void failureObject(JsonGenerator json, Failure failure, int depth) {
        json.writeStartObject();
        if (failure.id() != 0) number(json, ID, failure.id());
        if (failure.isReference()) {
            json.writeEndObject();
            return;
        }
        text(json, TYPE, failure.type());
        text(json, MESSAGE, failure.message());
        text(json, EXPECTED, failure.expected());
        text(json, ACTUAL, failure.actual());
        text(json, STACK, failure.stack());
        List<Failure> gathered = failure.gathered();
        if (!gathered.isEmpty() && depth > 0) {
            json.writeName(GATHERED);
            json.writeStartArray();
            for (Failure one : gathered) failureObject(json, one, depth - 1);
            json.writeEndArray();
        }
        json.writeEndObject();
    }

    /** The two fields with which each line begins, as far as they are known before: to the generator they are one name. */
    private static final class Head extends SerializedString {

        private static final long serialVersionUID = 1;

        Head(String kind) {
            super(kind);
            _quotedUTF8Ref = ("event\":\"" + kind + "\",\"at").getBytes(StandardCharsets.UTF_8);
        }
    }
}
