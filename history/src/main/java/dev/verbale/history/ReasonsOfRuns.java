package dev.verbale.history;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;

/** When each reason came and went. */
final class ReasonsOfRuns {

    private final Suite suite;
    private final List<RunSummary> runs;
    private final List<BitSet> in = new ArrayList<>();
    private final int[] tests;

    /** @param numbers of the runs that count, in the suite */
    ReasonsOfRuns(Suite suite, int[] numbers, List<RunSummary> runs) {
        this.suite = suite;
        this.runs = runs;
        int reasons = suite.reasons().size();
        tests = new int[reasons];
        for (int i = 0; i < reasons; i++) in.add(new BitSet());
        int[] index = new int[suite.runs().size()];
        Arrays.fill(index, -1);
        for (int i = 0; i < numbers.length; i++) index[numbers[i]] = i;
        for (TestRow row : suite.rows())
            for (int i = 0; i < row.unusualRuns(); i++) {
                int reason = row.unusualReason(i);
                int run = index[row.unusualRun(i)];
                if (reason < 0 || run < 0) continue;
                in.get(reason).set(run);
                tests[reason]++;
            }
    }

    /** The last seen first, then those in most runs. */
    List<ReasonHistory> all() {
        List<ReasonHistory> all = new ArrayList<>();
        for (int i = 0; i < tests.length; i++) {
            BitSet its = in.get(i);
            if (its.isEmpty()) continue;
            int stretch = runs.size() - 1 - its.previousClearBit(runs.size() - 1);
            String id = suite.reasons().get(i);
            all.add(new ReasonHistory(
                    id,
                    suite.titleOf(id),
                    runs.get(its.nextSetBit(0)),
                    runs.get(its.length() - 1),
                    its.cardinality(),
                    tests[i],
                    stretch == 0 ? null : runs.get(runs.size() - stretch),
                    stretch));
        }
        all.sort(Comparator.comparing((ReasonHistory reason) -> reason.last().started())
                .thenComparing(ReasonHistory::runs)
                .reversed()
                .thenComparing(ReasonHistory::id));
        return all;
    }
}
