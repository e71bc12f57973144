package dev.verbale.export;

import dev.verbale.event.Failure;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.results.source.SourceSnippet;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A failure at the line that it came from.
 *
 * @param key of the test or the class
 * @param test its name, with the class before it
 * @param title of its reason
 * @param reason its id
 * @param text what was thrown
 * @param file below the folder of the sources, with forward slashes; empty where no source is at hand
 * @param line from 1; 0 where there is no file
 */
record FailedLine(String key, String test, String title, String reason, String text, String file, int line) {

    private static final int LONGEST = 1_000;

    /**
     * All of {@code run}: the first of each reason before the second of any, since CI systems show only some of them.
     *
     * @param root what the paths of files begin at
     */
    static List<FailedLine> of(Run run, @Nullable CodeAtHand code, Path root) {
        List<FailedLine> lines = new ArrayList<>();
        List<FailureReason> reasons = FailureReason.of(run);
        int longest = reasons.stream()
                .mapToInt(reason -> reason.tests().size() + reason.containers().size())
                .max()
                .orElse(0);
        for (int i = 0; i < longest; i++)
            for (FailureReason reason : reasons) {
                int tests = reason.tests().size();
                if (i < tests) lines.add(of(run, reason, reason.tests().get(i), code, root));
                else if (i - tests < reason.containers().size())
                    lines.add(of(run, reason, reason.containers().get(i - tests), code, root));
            }
        return lines;
    }

    private static FailedLine of(Run run, FailureReason reason, TestResult test, @Nullable CodeAtHand code, Path root) {
        String in = test.path().isEmpty() ? "" : test.path().get(0) + " \u203A ";
        String text = test.failure() == null ? test.outcome().text() : FailureTitle.of(test.failure());
        return at(run, test.key(), in + test.name(), reason, text, test.failure(), code, root);
    }

    private static FailedLine of(
            Run run, FailureReason reason, ContainerResult container, @Nullable CodeAtHand code, Path root) {
        String text = container.failure() == null ? container.outcome().text() : FailureTitle.of(container.failure());
        return at(run, container.key(), container.name() + " itself", reason, text, container.failure(), code, root);
    }

    private static FailedLine at(
            Run run,
            String key,
            String test,
            FailureReason reason,
            String text,
            @Nullable Failure failure,
            @Nullable CodeAtHand code,
            Path root) {
        SourceSnippet found = failure == null || code == null ? null : code.snippet(failure, run.ownFrames());
        String file = found == null
                ? ""
                : root.toAbsolutePath()
                        .normalize()
                        .relativize(found.file().toAbsolutePath().normalize())
                        .toString()
                        .replace('\\', '/');
        return new FailedLine(
                key,
                Texts.cut(test, LONGEST),
                Texts.cut(reason.title(), LONGEST),
                reason.id(),
                Texts.cut(text, LONGEST),
                file,
                found == null ? 0 : found.line());
    }
}
