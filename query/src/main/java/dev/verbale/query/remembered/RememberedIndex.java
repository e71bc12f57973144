package dev.verbale.query.remembered;

import dev.verbale.query.remembered.RememberedCursor.Rows;
import java.util.function.IntFunction;
import org.h2.command.query.AllColumnsForPlan;
import org.h2.engine.SessionLocal;
import org.h2.index.Cursor;
import org.h2.index.Index;
import org.h2.index.IndexCondition;
import org.h2.index.IndexType;
import org.h2.result.Row;
import org.h2.result.SearchRow;
import org.h2.result.SortOrder;
import org.h2.table.Column;
import org.h2.table.IndexColumn;
import org.h2.table.TableFilter;
import org.h2.value.Value;
import org.h2.value.ValueNull;
import org.jspecify.annotations.Nullable;

/** A way to the rows: to all of them, or to those with one value of a column. Nothing is kept for it. */
final class RememberedIndex extends Index {

    /** Of a row that is looked at, beside one that is looked up. */
    private static final double COST_OF_ROW = 10;

    private final RememberedRuns runs;
    private final @Nullable ResultColumn column;

    /** @param column null for all rows */
    RememberedIndex(RememberedTests table, RememberedRuns runs, @Nullable ResultColumn column) {
        super(
                table,
                table.getId(),
                table.getName() + (column == null ? "_rows" : "_by_" + column.word()),
                IndexColumn.wrap(column == null ? table.getColumns() : new Column[] {table.getColumn(column.word())}),
                0,
                column == null
                        ? IndexType.createScan(false)
                        : IndexType.createNonUnique(false, true, false)); // by one value, and in no order
        this.runs = runs;
        this.column = column;
    }

    /** More rows than are wanted may come: what was asked for is looked at once more. */
    @Override
    public Cursor find(SessionLocal session, @Nullable SearchRow first, @Nullable SearchRow last, boolean isReverse) {
        return new RememberedCursor(runs, rows(first, last));
    }

    private IntFunction<Rows> rows(@Nullable SearchRow first, @Nullable SearchRow last) {
        ResultColumn by = column;
        if (by != null && first != null && last != null) {
            Value wanted = first.getValue(number());
            if (wanted != null && !wanted.equals(ValueNull.INSTANCE) && wanted.equals(last.getValue(number())))
                return run -> rows(run, by, wanted);
        }
        return this::all;
    }

    /** That of its column in the table. */
    private int number() {
        return getColumns()[0].getColumnId();
    }

    private Rows rows(int run, ResultColumn by, Value wanted) {
        if (by != ResultColumn.TEST) return runs.isRun(run, wanted) ? all(run) : Rows.NONE;
        long row = runs.row(run, wanted.getString());
        return row < 0 ? Rows.NONE : new Rows(row, row + 1);
    }

    private Rows all(int run) {
        return new Rows(runs.firstRow(run), runs.firstRow(run + 1));
    }

    @Override
    public double getCost(
            SessionLocal session,
            int @Nullable [] masks,
            TableFilter[] filters,
            int filter,
            @Nullable SortOrder order,
            AllColumnsForPlan wanted,
            boolean isSelect) {
        double rows = runs.size() * COST_OF_ROW + 1;
        if (column == null) return rows;
        boolean isOneValue = masks != null && (masks[number()] & IndexCondition.EQUALITY) != 0;
        if (!isOneValue) return 2 * rows;
        return column == ResultColumn.TEST
                ? runs.runCount() * COST_OF_ROW
                : rows / Math.max(1, runs.runCount()) + runs.runCount();
    }

    @Override
    public long getRowCount(SessionLocal session) {
        return runs.size();
    }

    @Override
    public long getRowCountApproximation(SessionLocal session) {
        return runs.size();
    }

    @Override
    public boolean needRebuild() {
        return false;
    }

    @Override
    public void checkRename() {
        throw RememberedTests.readOnly();
    }

    @Override
    public void add(SessionLocal session, Row row) {
        throw RememberedTests.readOnly();
    }

    @Override
    public void remove(SessionLocal session, Row row) {
        throw RememberedTests.readOnly();
    }

    @Override
    public void remove(SessionLocal session) {
        // with its table
    }

    @Override
    public void truncate(SessionLocal session) {
        throw RememberedTests.readOnly();
    }

    @Override
    public void close(SessionLocal session) {
        // nothing is open
    }
}
