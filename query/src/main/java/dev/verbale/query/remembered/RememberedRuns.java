package dev.verbale.query.remembered;

import dev.verbale.history.RunResults;
import dev.verbale.query.values.StoredMoment;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.h2.value.Value;
import org.h2.value.ValueBoolean;
import org.h2.value.ValueInteger;
import org.h2.value.ValueNull;
import org.h2.value.ValueSmallint;
import org.h2.value.ValueTimestampTimeZone;
import org.h2.value.ValueVarchar;

/**
 * The rows of {@code tests}: the tests of all remembered runs, the oldest run first, with a number each from 0. What a question does not
 * ask for is not made, and read from no file.
 */
final class RememberedRuns {

    private final List<RunResults> runs;
    private final List<SuiteTexts> suites = new ArrayList<>();
    private final List<OfRun> ofRuns = new ArrayList<>();
    private final Value[][] reasons;
    private final long[] firstRows;
    private final Map<Outcome, Value> outcomes = new HashMap<>();

    /** What all tests of a run have in common. */
    private record OfRun(Value number, Value name, Value started, Value branch) {}

    RememberedRuns(List<RunResults> runs) {
        this.runs = List.copyOf(runs);
        firstRows = new long[runs.size() + 1];
        reasons = new Value[runs.size()][];
        Map<Object, SuiteTexts> known = new HashMap<>();
        for (int run = 0; run < runs.size(); run++) {
            RunResults results = runs.get(run);
            firstRows[run + 1] = firstRows[run] + results.size();
            suites.add(known.computeIfAbsent(results.suite(), added -> new SuiteTexts(results)));
            ofRuns.add(new OfRun(
                    ValueInteger.get(run + 1),
                    ValueVarchar.get(results.run().name()),
                    ValueTimestampTimeZone.parse(
                            StoredMoment.of(results.run().started()).toString(), null),
                    ValueVarchar.get(results.run().branch())));
            reasons[run] = results.reasons().stream()
                    .map(reason -> ValueVarchar.get(reason.id()))
                    .toArray(Value[]::new);
        }
    }

    long size() {
        return firstRows[runs.size()];
    }

    int runCount() {
        return runs.size();
    }

    /** The number of the first row of a run; of the run behind the last: that of all rows. */
    long firstRow(int run) {
        return firstRows[run];
    }

    /** The run that a row is of. */
    int runOf(long row) {
        int found = Arrays.binarySearch(firstRows, row);
        if (found < 0) return -found - 2;
        while (firstRows[found + 1] == row) found++; // runs of no test
        return found;
    }

    /** The number of the row of a test in a run; -1 where it is not in it. */
    long row(int run, String key) {
        int position = suites.get(run).position(key);
        return position < 0 ? -1 : firstRows[run] + position;
    }

    /** Whether the run has this number, or this name. */
    boolean isRun(int run, Value numberOrName) {
        OfRun one = ofRuns.get(run);
        return one.number.equals(numberOrName) || one.name.equals(numberOrName);
    }

    Value value(int run, long row, ResultColumn column) {
        int position = (int) (row - firstRows[run]);
        RunResults results = runs.get(run);
        return switch (column) {
            case RUN_ID -> ofRuns.get(run).number;
            case RUN -> ofRuns.get(run).name;
            case RUN_STARTED -> ofRuns.get(run).started;
            case BRANCH -> ofRuns.get(run).branch;
            case TEST, MODULE, NAME, CLASS_NAME, METHOD_NAME, TAGS, OWNER ->
                suites.get(run).of(column, position);
            case OUTCOME ->
                outcomes.computeIfAbsent(results.outcome(position), outcome -> ValueVarchar.get(outcome.word()));
            case NEEDS_ATTENTION -> ValueBoolean.get(results.outcome(position).needsAttention());
            case DURATION_MS -> ValueInteger.get(results.millis(position));
            case ATTEMPTS -> ValueSmallint.get((short) Math.min(Short.MAX_VALUE, results.attempts(position)));
            case FLAKY -> ValueBoolean.get(results.isRecovered(position));
            case REASON -> {
                int reason = results.reason(position);
                yield reason < 0 ? ValueNull.INSTANCE : reasons[run][reason];
            }
            case LABEL -> ValueNull.INSTANCE; // rules are asked of whole runs
        };
    }
}
