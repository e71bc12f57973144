package dev.verbale.results;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One execution of one test.
 *
 * @param key the same in every run
 * @param occurrence 1, or more where the run executed the same key before; with the key it names this result
 * @param path the names of the classes around it, outermost first
 * @param reason why it was skipped or aborted
 * @param took until its end, or until the last thing known of it where it is unfinished
 * @param worker the JVM that ran it
 * @param about what was said about it
 * @param superseded whether it needs no attention any more, because the run executed it again later
 * @param recovered whether it passed after an execution that had not, in the same run
 * @param entries what happened in it, in order
 */
public record TestResult(
        String key,
        int occurrence,
        String name,
        List<String> path,
        @Nullable String className,
        @Nullable String methodName,
        List<String> tags,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        Instant started,
        Duration took,
        String worker,
        String thread,
        About about,
        boolean superseded,
        boolean recovered,
        List<Entry> entries) {

    public TestResult {
        path = List.copyOf(path);
        tags = List.copyOf(tags);
        entries = List.copyOf(entries);
    }

    /** Names this result in its run: the key, and which occurrence where there is more than one. */
    public String address() {
        return occurrence == 1 ? key : key + "~" + occurrence;
    }

    TestResult numbered(int number, boolean again, boolean afterFailure) {
        return new TestResult(
                key,
                number,
                name,
                path,
                className,
                methodName,
                tags,
                outcome,
                reason,
                failure,
                started,
                took,
                worker,
                thread,
                about,
                again,
                afterFailure && outcome == Outcome.PASSED,
                entries);
    }
}
