package dev.verbale.maven;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** When the page of a build is written. */
enum PageRule {
    OFF,
    FAILURES,
    ALWAYS;

    /** What the line begins with that says where the page is. */
    static final String PAGE = "Page: ";

    /** @throws IllegalArgumentException where {@code word} is none */
    static PageRule of(String word) {
        for (PageRule rule : values()) if (rule.name().equalsIgnoreCase(word.strip())) return rule;
        throw new IllegalArgumentException("verbale.page is '" + word + "'. Write one of "
                + List.of(values()).toString().toLowerCase(Locale.ROOT).replaceAll("[\\[\\]]", "") + ".");
    }

    /**
     * Writes the page of {@code run} where this rule says so, and tells {@code out} what the run came to.
     *
     * @param baseline the run to compare with; null for none
     * @param history where runs are remembered, for what is new in this one
     * @param options of the page
     */
    void apply(
            RunFolder folder,
            @Nullable RunFolder baseline,
            Optional<HistoryFolder> history,
            PageOptions options,
            Consumer<String> out)
            throws IOException {
        if (this != ALWAYS) {
            Run read = RunReader.read(folder.path(), TestKeeper.FAILURES);
            say(read, out);
            if (this == OFF || !needsAttention(read)) return;
        }
        Run before = baseline == null ? null : RunReader.read(baseline.path());
        PageOptions all = options.withBaseline(before).withEarlier(earlier(folder, history));
        Path index = Page.write(folder, folder.page(), all, run -> {
                    if (this == ALWAYS) say(run, out); // before its page, which may be impossible to write
                    return !isEmpty(run);
                })
                .index();
        if (index != null) out.accept(PAGE + index.toAbsolutePath().toUri());
    }

    private static void say(Run run, Consumer<String> out) {
        if (isEmpty(run)) return;
        List<FailureReason> reasons = FailureReason.of(run);
        out.accept("Verbale: " + Headline.of(run, reasons));
        for (String reason : Headline.firstReasons(reasons)) out.accept("  " + reason);
    }

    private static boolean isEmpty(Run run) {
        return run.tests().isEmpty() && run.brokenContainers().isEmpty();
    }

    /** A page without a history is better than none. */
    private static @Nullable BaselineFinder earlier(RunFolder run, Optional<HistoryFolder> history) {
        Path around = run.path().toAbsolutePath().normalize().getParent();
        try {
            return history.isEmpty() || around == null
                    ? null
                    : new BaselineFinder(around, history.get(), history.get().read(problem -> {}));
        } catch (IOException unreadable) {
            return null;
        }
    }

    static boolean needsAttention(Run run) {
        return run.counts().needingAttention() > 0;
    }
}
