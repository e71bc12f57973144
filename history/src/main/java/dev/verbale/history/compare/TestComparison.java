package dev.verbale.history.compare;

import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.BrowserFindings;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One test beside the same test of an earlier run.
 *
 * @param first where it first went otherwise; empty where it went alike
 * @param exchanges whose responses are not what they were, in their order
 * @param scriptErrors that the browser's console has now and had not then
 * @param screenshotBefore the last one of then; null where there is none
 * @param screenshotAfter the last one of now; null where there is none
 * @since 0.2.0
 */
public record TestComparison(
        Optional<FirstDifference> first,
        List<ExchangeDifference> exchanges,
        List<String> scriptErrors,
        @Nullable Path screenshotBefore,
        @Nullable Path screenshotAfter) {

    public TestComparison {
        exchanges = List.copyOf(exchanges);
        scriptErrors = List.copyOf(scriptErrors);
    }

    /**
     * An exchange that was made in both, and answered otherwise.
     *
     * @param request such as {@code GET /api/plots}
     * @param statusBefore 0 where there was no response
     * @param statusAfter 0 where there was no response
     * @param values that are not the same, where both bodies are JSON
     */
    public record ExchangeDifference(String request, int statusBefore, int statusAfter, List<JsonDifference> values) {
        public ExchangeDifference {
            values = List.copyOf(values);
        }
    }

    /** Of the two, whichever of them passed. */
    public static TestComparison of(TestResult before, TestResult after) {
        return new TestComparison(
                FirstDifference.of(before, after),
                exchanges(before, after),
                scriptErrors(before, after),
                screenshot(before.entries()),
                screenshot(after.entries()));
    }

    /** Side by side as long as both ask for the same; from there on nobody knows which belong together. */
    private static List<ExchangeDifference> exchanges(TestResult before, TestResult after) {
        List<Entry.ExchangeEntry> then = Entry.ExchangeEntry.in(before.entries());
        List<Entry.ExchangeEntry> now = Entry.ExchangeEntry.in(after.entries());
        List<ExchangeDifference> differences = new ArrayList<>();
        for (int i = 0; i < Math.min(then.size(), now.size()); i++) {
            ExchangeMade one = then.get(i).made();
            ExchangeMade other = now.get(i).made();
            String request = FirstDifference.request(other);
            if (!FirstDifference.request(one).equals(request)) break;
            List<JsonDifference> values =
                    JsonDifference.of(body(one), body(other)).orElse(List.of());
            if (one.status() != other.status() || !values.isEmpty())
                differences.add(new ExchangeDifference(request, one.status(), other.status(), values));
        }
        return differences;
    }

    private static List<String> scriptErrors(TestResult before, TestResult after) {
        List<String> errors =
                new ArrayList<>(BrowserFindings.in(after.entries()).scriptErrors());
        errors.removeAll(BrowserFindings.in(before.entries()).scriptErrors());
        return errors;
    }

    static @Nullable String body(ExchangeMade made) {
        ExchangeMade.Body body =
                made.response() == null ? null : made.response().body();
        return body == null || body.isCut() ? null : body.text();
    }

    private static @Nullable Path screenshot(List<Entry> entries) {
        Path last = null;
        for (Entry entry : entries) {
            if (entry instanceof Entry.AttachmentEntry attached
                    && attached.kind().equals(AttachmentKind.SCREENSHOT)
                    && attached.file() != null) last = attached.file();
            Path inside = screenshot(Entry.inside(entry));
            if (inside != null) last = inside;
        }
        return last;
    }
}
