package dev.verbale.query.remembered;

import java.util.Arrays;
import org.h2.result.Row;
import org.h2.result.SearchRow;
import org.h2.value.Value;

/** A row whose values are made when they are asked for: most questions ask for two or three of them. */
final class RememberedRow extends Row {

    private static final int BYTES = 40;

    private final RememberedRuns runs;
    private final int run;

    RememberedRow(RememberedRuns runs, int run, long number) {
        this.runs = runs;
        this.run = run;
        setKey(number);
    }

    @Override
    public Value getValue(int column) {
        return runs.value(run, getKey(), ResultColumn.ALL[column]);
    }

    @Override
    public Value[] getValueList() {
        return Arrays.stream(ResultColumn.ALL)
                .map(column -> runs.value(run, getKey(), column))
                .toArray(Value[]::new);
    }

    @Override
    public int getColumnCount() {
        return ResultColumn.ALL.length;
    }

    @Override
    public int getMemory() {
        return BYTES;
    }

    @Override
    public void setValue(int column, Value value) {
        throw RememberedTests.readOnly();
    }

    @Override
    public void copyFrom(SearchRow source) {
        throw RememberedTests.readOnly();
    }
}
