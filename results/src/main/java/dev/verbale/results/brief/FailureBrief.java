package dev.verbale.results.brief;

import dev.verbale.event.Failure;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.element.MissingElement;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.results.source.SourceSnippet;
import org.jspecify.annotations.Nullable;

/**
 * A failure as text for an issue, a message or an assistant: what failed, what was expected, what the test did until then, what the
 * browser and the service said, and who else has it. As masked as the run is; nothing is read but the run. The same run gives the same
 * text.
 *
 * @param text in Markdown's headings and plain lines; ends with a line end
 * @param missing what the page had instead of an element that was not found; null where that is not why
 * @param source around the line that failed; null where it is not at hand
 * @since 0.2.0
 */
public record FailureBrief(
        String text,
        @Nullable MissingElement missing,
        @Nullable SourceSnippet source) {

    /**
     * Of {@code test}.
     *
     * @param run that it is of
     * @param reason that it has, as {@link FailureReason#byTest} gives it; null for none
     */
    public static FailureBrief of(Run run, TestResult test, @Nullable FailureReason reason, BriefOptions options) {
        MissingElement missing = MissingElement.of(test, options.good().get(test.key()));
        Failure failure = test.failure();
        CodeAtHand code = options.code();
        SourceSnippet source = failure == null || code == null ? null : code.snippet(failure, run.ownFrames());
        String text = new BriefText(run, test, missing, source, options).whole(reason);
        return new FailureBrief(text, missing, source);
    }
}
