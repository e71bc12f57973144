package dev.verbale.report;

import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.results.Run;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.rules.TriageRule;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a page is made of beside its run. Each method gives new options and leaves these as they are.
 *
 * @param baseline a run to compare tests with, and by which failures are new; null for none that somebody named
 * @param earlier runs that are remembered or lie beside this one, for what is new and since when; null for none
 * @param look what stands at its top, and its accent
 * @param content what is left out of it
 * @param progress where the run is still going; null where it is over
 * @param code of the suite, for the lines around one that failed; null for none
 * @param rules what a team says of its failures, in their order; see {@link dev.verbale.rules.Triage}
 * @param projectPages from the page to the folder where a hub has {@code reasons/ID} and {@code tests?key=KEY}, such as {@code ../../}; null
 *     for a page that no hub shows
 * @since 0.2.0
 */
public record PageOptions(
        @Nullable Run baseline,
        @Nullable BaselineFinder earlier,
        PageLook look,
        PageContent content,
        @Nullable PageProgress progress,
        @Nullable CodeAtHand code,
        List<TriageRule> rules,
        @Nullable String projectPages) {

    /** The run alone, with all that was recorded. */
    public static final PageOptions PLAIN =
            new PageOptions(null, null, PageLook.PLAIN, PageContent.ALL, null, null, List.of(), null);

    public PageOptions {
        Objects.requireNonNull(look, "look");
        Objects.requireNonNull(content, "content");
        rules = List.copyOf(rules);
    }

    /** With {@code baseline}, or none where it is null. */
    public PageOptions withBaseline(@Nullable Run baseline) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With {@code earlier} runs, or none where it is null. */
    public PageOptions withEarlier(@Nullable BaselineFinder earlier) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With {@code look}. */
    public PageOptions withLook(PageLook look) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With {@code content}. */
    public PageOptions withContent(PageContent content) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With {@code progress}, or as of a run that is over where it is null. */
    public PageOptions withProgress(@Nullable PageProgress progress) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With {@code code}, or none where it is null. Its lines are in the page as they stand, and not masked. */
    public PageOptions withCode(@Nullable CodeAtHand code) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }

    /** With what a team says of its failures. */
    public PageOptions withRules(List<TriageRule> triage) {
        return new PageOptions(baseline, earlier, look, content, progress, code, triage, projectPages);
    }

    /** With links to a hub's pages of reasons and tests, which are at {@code projectPages}; or without any where it is null. */
    public PageOptions withProjectPages(@Nullable String projectPages) {
        return new PageOptions(baseline, earlier, look, content, progress, code, rules, projectPages);
    }
}
