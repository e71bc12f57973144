package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A row of the list of tests: a test, or a container that broke outside its tests, which a reader must not miss although it
 * counts as no test.
 *
 * @param id names it in the page's links
 * @param key the same for each attempt, and in each run
 * @param isTest whether it is a test's
 * @param attempts how many the run made; of the last one, and 1 for the others
 * @param superseded whether the run made another attempt later, and it counts no more
 * @param recovered whether it passed after an attempt that had not
 * @param source where it is written, where its class does not say it
 * @param blockedBy the keys of the tests or containers because of which it was not run
 * @param entries what happened in it, as far as it is kept; nothing where it is left out
 * @param isLeftOut whether what happened in it is left out of the page
 * @param draft where all that happened in it is written
 */
record Row(
        String id,
        String key,
        boolean isTest,
        String name,
        List<String> path,
        @Nullable String className,
        @Nullable String methodName,
        List<String> tags,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        Instant started,
        Duration duration,
        String worker,
        @Nullable String thread,
        About about,
        int attempts,
        boolean superseded,
        boolean recovered,
        List<String> blockedBy,
        @Nullable String source,
        List<Entry> entries,
        boolean isLeftOut,
        Draft draft) {

    static Row of(TestResult t, boolean isLeftOut, Draft draft) {
        return new Row(
                t.id(),
                t.key(),
                true,
                t.name(),
                t.path(),
                t.className(),
                t.methodName(),
                t.tags(),
                t.outcome(),
                t.reason(),
                t.failure(),
                t.started(),
                t.duration(),
                t.worker(),
                t.thread(),
                t.about(),
                t.superseded() ? 1 : t.attempt().number(),
                t.superseded(),
                t.recovered(),
                t.blockedBy(),
                t.identity().source(),
                isLeftOut ? List.of() : t.entries(),
                isLeftOut,
                draft);
    }

    /** What names the row of a container with that key. */
    static String idOfContainer(String key) {
        return key + "~itself";
    }

    static Row of(ContainerResult c, Draft draft) {
        String lost =
                c.notRun() == 0 ? "" : ": " + c.notRun() + (c.notRun() == 1 ? " test" : " tests") + " did not run";
        return new Row(
                idOfContainer(c.key()),
                idOfContainer(c.key()),
                false,
                c.name() + " itself" + lost,
                c.path(),
                c.className(),
                null,
                List.of(),
                c.outcome(),
                c.reason(),
                c.failure(),
                c.started(),
                c.duration(),
                c.worker(),
                null,
                About.NOTHING,
                1,
                false,
                false,
                List.of(),
                null,
                c.entries(),
                false,
                draft);
    }
}
