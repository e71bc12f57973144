package dev.verbale.results.brief;

import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.element.MissingElement;
import dev.verbale.results.reason.FailureReason;
import org.jspecify.annotations.Nullable;

/**
 * A failure as text for an issue, a message or an assistant: what failed, what was expected, what the test did until then, what the
 * browser and the service said, and who else has it. As masked as the run is; nothing is read but the run. The same run gives the same
 * text.
 *
 * @param text in Markdown's headings and plain lines; ends with a line end
 * @param missing what the page had instead of an element that was not found; null where that is not why
 * @since 0.2.0
 */
public record FailureBrief(String text, @Nullable MissingElement missing) {

    private static final int SHORTEST = 500;

    /**
     * Of {@code test}.
     *
     * @param run that it is of
     * @param reason that it has, as {@link FailureReason#byTest} gives it; null for none
     * @param longest in characters, at least 500; what is least worth comes last, and is left out first
     * @throws IllegalArgumentException where {@code longest} is less
     */
    public static FailureBrief of(Run run, TestResult test, @Nullable FailureReason reason, int longest) {
        return of(run, test, reason, longest, true);
    }

    /**
     * The same, for who must not know where the run was made.
     *
     * @param hasEnvironment whether what was stated of that is in it
     */
    public static FailureBrief of(
            Run run, TestResult test, @Nullable FailureReason reason, int longest, boolean hasEnvironment) {
        if (longest < SHORTEST)
            throw new IllegalArgumentException(longest + " characters hold no brief; give it " + SHORTEST + " or more");
        MissingElement missing = MissingElement.of(test);
        return new FailureBrief(new BriefText(run, test, missing, longest).whole(reason, hasEnvironment), missing);
    }
}
