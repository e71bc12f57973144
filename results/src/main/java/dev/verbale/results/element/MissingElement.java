package dev.verbale.results.element;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.LocatorOfFailure;
import java.util.List;
import java.util.StringJoiner;
import org.jspecify.annotations.Nullable;

/**
 * An element that a test did not find in a page, and what that page had instead.
 *
 * @param locator as the suite wrote it, as CSS where that can be said
 * @param nearest in the source of the page as it was then, the nearest first, at most three
 * @since 0.2.0
 */
public record MissingElement(String locator, List<NearElement> nearest) {

    public MissingElement {
        nearest = List.copyOf(nearest);
    }

    /** Null where {@code test} failed for another reason, or where nobody recorded the page's source. */
    public static @Nullable MissingElement of(TestResult test) {
        return of(test, null);
    }

    /**
     * The element that {@code test} missed, with what its locator found when it found something.
     *
     * @param good the same test in a run in which it passed; null for none
     */
    public static @Nullable MissingElement of(TestResult test, @Nullable TestResult good) {
        Failure failure = test.failure();
        if (failure == null || !test.outcome().needsAttention()) return null;
        String locator = LocatorOfFailure.missing(failure);
        String source = locator == null ? null : PageSource.last(test.entries());
        if (locator == null || source == null) return null;
        String textThen = good == null ? null : FoundBefore.text(good.entries(), locator);
        return new MissingElement(locator, NearestElements.of(source, locator, doing(test), textThen));
    }

    private static String doing(TestResult test) {
        var words = new StringJoiner(" ").add(test.name());
        addFailing(test.entries(), words);
        return words.toString();
    }

    private static void addFailing(List<Entry> entries, StringJoiner words) {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step) || !step.outcome().needsAttention()) continue;
            words.add(step.name());
            addFailing(step.entries(), words);
        }
    }
}
