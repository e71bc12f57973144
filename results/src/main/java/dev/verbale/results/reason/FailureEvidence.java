package dev.verbale.results.reason;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.TestResult;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * What a rule may ask of a test that failed, as texts.
 *
 * @param types the class names of what was thrown, of its causes and of what it gathers
 * @param messages their messages; of a cause the first line
 * @param frames of the suite and of libraries, such as {@code dev.orto.RotaPage.swap}, the nearest first
 * @param steps the names of the steps that did not pass, the outermost first
 * @param exchanges such as {@code POST http://localhost:8080/api/swaps 503}, with status 0 where there was no response
 * @param console what a browser's console said of broken scripts
 * @param data such as {@code plot=7}
 * @since 0.2.0
 */
public record FailureEvidence(
        List<String> types,
        List<String> messages,
        List<String> frames,
        List<String> steps,
        List<String> exchanges,
        List<String> console,
        List<String> data) {

    public FailureEvidence {
        types = List.copyOf(types);
        messages = List.copyOf(messages);
        frames = List.copyOf(frames);
        steps = List.copyOf(steps);
        exchanges = List.copyOf(exchanges);
        console = List.copyOf(console);
        data = List.copyOf(data);
    }

    /** Of {@code test}; reads the console that is attached to it. */
    public static FailureEvidence of(TestResult test) {
        var found = new Gathered();
        if (test.failure() != null) found.add(test.failure());
        found.add(test.entries());
        BrowserFindings browser = BrowserFindings.in(test.entries());
        for (BrowserFindings.Request request : browser.failed())
            found.exchanges.add(request.method() + " " + request.url() + " " + request.status());
        return new FailureEvidence(
                List.copyOf(found.types),
                List.copyOf(found.messages),
                List.copyOf(found.frames),
                found.steps,
                found.exchanges,
                browser.scriptErrors(),
                found.data);
    }

    private static final class Gathered {
        private final Set<String> types = new LinkedHashSet<>();
        private final Set<String> messages = new LinkedHashSet<>();
        private final Set<String> frames = new LinkedHashSet<>();
        private final List<String> steps = new ArrayList<>();
        private final List<String> exchanges = new ArrayList<>();
        private final List<String> data = new ArrayList<>();

        private void add(Failure failure) {
            for (ThrownChain.Thrown thrown : ThrownChain.of(failure).thrown()) {
                types.add(thrown.type());
                if (thrown.message() != null) messages.add(thrown.message());
                for (ThrownChain.Frame frame : thrown.frames()) frames.add(frame.text());
            }
            if (messages.isEmpty()) messages.add(FailureTitle.of(failure));
            failure.gathered().forEach(this::add);
        }

        private void add(List<Entry> entries) {
            for (Entry entry : entries) {
                if (entry instanceof Entry.StepEntry step && step.outcome().needsAttention()) steps.add(step.name());
                if (entry instanceof Entry.DataEntry named) data.add(named.name() + "=" + named.value());
                if (entry instanceof Entry.ExchangeEntry exchange) {
                    ExchangeMade made = exchange.made();
                    exchanges.add(made.request().method() + " " + made.request().url() + " " + made.status());
                }
                add(Entry.inside(entry));
            }
        }
    }
}
