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
import dev.verbale.event.Outcome;
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
import java.time.DateTimeException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;

/** Turns lines into events. */
final class EventDecoder {

    private EventDecoder() {}

    /**
     * What a line holds.
     *
     * @param repeated names of fields that stand in one object more than once
     */
    record Decoded(Event event, Set<String> repeated) {}

    /**
     * The event in the first {@code length} bytes.
     *
     * @throws MalformedLine where there is none, or one of a kind that this version does not know
     */
    static Decoded decode(byte[] bytes, int length) {
        try {
            Fields fields = Fields.parse(bytes, length);
            String kind = fields.text("event");
            return new Decoded(event(kind, fields.as(kind)), fields.repeated());
        } catch (MalformedLine known) {
            throw known;
        } catch (JacksonException broken) {
            throw new MalformedLine("not JSON: " + broken.getOriginalMessage());
        } catch (IllegalArgumentException | ArithmeticException | DateTimeException unfit) {
            throw new MalformedLine(String.valueOf(unfit.getMessage()));
        } catch (RuntimeException odd) { // lines come from strangers, and one of them must not cost a run
            throw new MalformedLine("cannot be read (" + odd + ")");
        }
    }

    private static Event event(String kind, Fields f) {
        if (kind.equals("journal-opened"))
            return new JournalOpened(
                    f.id("format"),
                    f.text("worker"),
                    WallClockText.read(f.text("wall")),
                    f.number("pid"),
                    f.text("verbale"));
        long at = f.micros("at");
        return switch (kind) {
            case "container-started" ->
                new ContainerStarted(
                        at,
                        f.id("id"),
                        f.idOrZero("in"),
                        f.text("key"),
                        f.text("name"),
                        f.textOrNull("class"),
                        f.textOrNull("method"));
            case "container-ended" ->
                new ContainerEnded(
                        at, f.id("id"), outcome(f), f.textOrNull("reason"), failure(f), f.idOrZero("notRun"));
            case "test-started" ->
                new TestStarted(
                        at,
                        f.id("id"),
                        f.idOrZero("in"),
                        f.text("key"),
                        f.text("name"),
                        f.textOrNull("class"),
                        f.textOrNull("method"),
                        f.text("thread"),
                        f.texts("tags"));
            case "test-ended" -> new TestEnded(at, f.id("id"), outcome(f), f.textOrNull("reason"), failure(f));
            case "step-started" -> {
                String word = f.textOrNull("kind");
                StepKind stepKind = word == null ? StepKind.ACTION : StepKind.ofWord(word);
                yield new StepStarted(
                        at, f.id("id"), f.idOrZero("in"), stepKind, f.text("name"), f.textOrNull("thread"));
            }
            case "step-ended" -> new StepEnded(at, f.id("id"), outcome(f), f.textOrNull("reason"), failure(f));
            case "note" -> new NoteWritten(at, f.idOrZero("in"), f.text("text"), f.textOrNull("thread"));
            case "paper" ->
                new PaperKept(
                        at,
                        f.idOrZero("in"),
                        f.text("name"),
                        f.text("kind"),
                        f.text("mediaType"),
                        f.text("file"),
                        f.number("size"),
                        f.textOrNull("sha256"),
                        f.idOrZero("promise"),
                        f.microsOrZero("begins"));
            case "exchange" -> exchange(at, f);
            case "log" ->
                new LogWritten(
                        at,
                        f.idOrZero("in"),
                        f.text("level"),
                        f.text("logger"),
                        f.text("text"),
                        f.textOrNull("thread"),
                        f.textsByName("context"),
                        failure(f));
            case "check" ->
                new CheckMade(at, f.idOrZero("in"), f.text("name"), outcome(f), failure(f), f.idOrZero("about"));
            case "step-budget" -> new StepBudgeted(at, f.id("id"), f.micros("micros"));
            case "paper-promised" ->
                new PaperPromised(at, f.idOrZero("in"), f.id("id"), f.text("name"), f.text("kind"));
            case "test-described" ->
                new TestDescribed(
                        at,
                        f.id("id"),
                        f.textOrNull("text"),
                        f.textOrNull("severity"),
                        f.textOrNull("owner"),
                        f.objects("links").stream()
                                .map(link -> new TestDescribed.Link(link.text("name"), link.textOrNull("address")))
                                .toList());
            case "data" -> new DataNamed(at, f.idOrZero("in"), f.text("name"), f.text("value"));
            case "fact" -> new FactStated(at, f.text("name"), f.text("value"));
            case "problem" -> new ProblemMet(at, f.text("text"));
            case "events-missed" -> new EventsMissed(at, f.numbers("missingByKind"));
            case "journal-ended" ->
                new JournalEnded(at, f.number("missing"), f.numbers("missingByKind"), f.microsOrZero("cost"));
            default -> throw new MalformedLine("unknown event '" + kind + "'");
        };
    }

    private static Outcome outcome(Fields f) {
        return Outcome.ofWord(f.text("outcome"));
    }

    private static @Nullable Failure failure(Fields f) {
        Fields failure = f.objectOrNull("failure");
        return failure == null ? null : failureOf(failure);
    }

    private static Failure failureOf(Fields f) {
        int id = f.idOrZero("id");
        if (id != 0 && f.textOrNull("type") == null) return Failure.reference(id);
        return new Failure(
                id,
                f.text("type"),
                f.textOrNull("message"),
                f.text("stack"),
                f.textOrNull("expected"),
                f.textOrNull("actual"),
                f.objects("gathered").stream().map(EventDecoder::failureOf).toList());
    }

    private static ExchangeMade exchange(long at, Fields f) {
        Fields request = f.objectOrNull("request");
        Fields response = f.objectOrNull("response");
        Fields trace = f.objectOrNull("trace");
        return new ExchangeMade(
                at,
                f.idOrZero("id"),
                f.idOrZero("in"),
                f.text("client"),
                f.text("method"),
                f.text("url"),
                f.textOrNull("protocol"),
                f.microsOr("micros", ExchangeMade.UNKNOWN),
                f.manyMicros("timings"),
                request == null ? new ExchangeMade.Message(List.of(), null) : message(request),
                f.idOrZero("status"),
                response == null ? null : message(response),
                f.textOrNull("failed"),
                f.textOrNull("thread"),
                trace == null ? null : new ExchangeMade.Trace(trace.text("id"), trace.textOrNull("address")),
                f.textsByName("attributes"));
    }

    private static ExchangeMade.Message message(Fields f) {
        List<ExchangeMade.Header> headers = new ArrayList<>();
        for (Fields header : f.objects("headers"))
            headers.add(new ExchangeMade.Header(header.text("name"), header.text("value")));
        Fields body = f.objectOrNull("body");
        return new ExchangeMade.Message(headers, body == null ? null : body(body));
    }

    private static ExchangeMade.Body body(Fields f) {
        long size = f.number("size");
        long decoded = f.longOrZero("decoded");
        List<ExchangeMade.Part> parts = new ArrayList<>();
        for (Fields part : f.objects("parts")) {
            Fields body = part.objectOrNull("body");
            if (body == null) throw new MalformedLine("a part of a body has no body");
            parts.add(new ExchangeMade.Part(
                    part.text("name"), part.textOrNull("fileName"), part.textOrNull("head"), body(body)));
        }
        return new ExchangeMade.Body(
                f.text("mediaType"),
                size,
                decoded == 0 ? size : decoded,
                f.textOrNull("text"),
                f.longOrZero("cut") == 1,
                f.textOrNull("file"),
                parts,
                f.textOrNull("leftOut"));
    }
}
