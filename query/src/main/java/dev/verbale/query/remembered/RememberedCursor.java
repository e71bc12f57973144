package dev.verbale.query.remembered;

import java.util.Objects;
import java.util.function.IntFunction;
import org.h2.index.Cursor;
import org.h2.result.Row;
import org.h2.result.SearchRow;
import org.jspecify.annotations.Nullable;

/** Goes through the rows of the runs that may have what is looked for, from the oldest run on. */
final class RememberedCursor implements Cursor {

    /** Numbers of rows. */
    record Rows(long first, long behindLast) {
        static final Rows NONE = new Rows(0, 0);
    }

    private final RememberedRuns runs;
    private final IntFunction<Rows> rowsOf;
    private int run = -1;
    private long next;
    private long behindLast;
    private @Nullable Row row;

    /** @param rowsOf which rows of a run to look at */
    RememberedCursor(RememberedRuns runs, IntFunction<Rows> rowsOf) {
        this.runs = runs;
        this.rowsOf = rowsOf;
    }

    @Override
    public boolean next() {
        while (next == behindLast) {
            if (++run >= runs.runCount()) return false;
            Rows rows = rowsOf.apply(run);
            next = rows.first;
            behindLast = rows.behindLast;
        }
        row = new RememberedRow(runs, run, next++);
        return true;
    }

    @Override
    public boolean previous() {
        throw RememberedTests.readOnly();
    }

    @Override
    public Row get() {
        return Objects.requireNonNull(row, "next() comes first");
    }

    @Override
    public SearchRow getSearchRow() {
        return get();
    }
}
