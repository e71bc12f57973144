package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.ModuleKey;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A row of the list of tests: a test, or a container that broke outside its tests, which a reader must not miss although it
 * counts as no test. What only tests have is empty here.
 */
sealed interface Row permits TestRow, ContainerRow {

    /** Of a test; {@code isLeftOut} says whether what happened in it is left out of the page. */
    static Row of(TestResult test, boolean isLeftOut, Draft draft) {
        return new TestRow(test, isLeftOut, draft);
    }

    /** Of a container that broke. */
    static Row of(ContainerResult container, Draft draft) {
        return new ContainerRow(container, draft);
    }

    /** What names the row of a container with that key. */
    static String idOfContainer(String key) {
        return key + "~itself";
    }

    /** Names it in the page's links. */
    String id();

    /** The same for each attempt, and in each run. */
    String key();

    /** Which module of its build it is of; empty where that has one only. */
    default String module() {
        return ModuleKey.module(key());
    }

    /** What a reader sees. */
    String name();

    /** The names of the classes around it, outermost first. */
    List<String> path();

    @Nullable
    String className();

    Outcome outcome();

    /** Why it was skipped or aborted. */
    @Nullable
    String reason();

    @Nullable
    Failure failure();

    Instant started();

    Duration duration();

    String worker();

    /** What happened in it, as far as it is kept; nothing where it is left out. */
    List<Entry> entries();

    /** Where all that happened in it is written. */
    Draft draft();

    default boolean isTest() {
        return false;
    }

    default boolean isLeftOut() {
        return false;
    }

    default @Nullable String methodName() {
        return null;
    }

    default @Nullable String thread() {
        return null;
    }

    default List<String> tags() {
        return List.of();
    }

    default About about() {
        return About.NOTHING;
    }

    /** How many the run made; of the last one, and 1 for the others. */
    default int attempts() {
        return 1;
    }

    /** Whether the run made another attempt later, and it counts no more. */
    default boolean superseded() {
        return false;
    }

    /** Whether it passed after an attempt that had not. */
    default boolean recovered() {
        return false;
    }

    /** The keys of the tests or containers because of which it was not run. */
    default List<String> blockedBy() {
        return List.of();
    }

    /** Where it is written, where its class does not say it. */
    default @Nullable String source() {
        return null;
    }
}
