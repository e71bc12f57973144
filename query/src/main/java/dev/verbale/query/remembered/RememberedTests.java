package dev.verbale.query.remembered;

import java.util.List;
import org.h2.api.ErrorCode;
import org.h2.api.TableEngine;
import org.h2.command.ddl.CreateTableData;
import org.h2.engine.SessionLocal;
import org.h2.index.Index;
import org.h2.index.IndexType;
import org.h2.message.DbException;
import org.h2.result.Row;
import org.h2.table.Column;
import org.h2.table.IndexColumn;
import org.h2.table.TableBase;
import org.h2.table.TableType;
import org.jspecify.annotations.Nullable;

/**
 * The table {@code tests} of a history, which holds nothing itself: its rows are what the columns beside the digests say when a question
 * asks for them. By H2's {@link TableEngine}; with an index in a file it took a minute to fill, and one process at a time.
 */
final class RememberedTests extends TableBase {

    private final List<Index> ways;
    private final RememberedRuns runs;

    RememberedTests(CreateTableData data, RememberedRuns runs) {
        super(data);
        this.runs = runs;
        ways = List.of(
                new RememberedIndex(this, runs, null),
                new RememberedIndex(this, runs, ResultColumn.RUN_ID),
                new RememberedIndex(this, runs, ResultColumn.RUN),
                new RememberedIndex(this, runs, ResultColumn.TEST));
    }

    static DbException readOnly() {
        return DbException.get(ErrorCode.DATABASE_IS_READ_ONLY);
    }

    @Override
    public Index getScanIndex(SessionLocal session) {
        return ways.get(0);
    }

    @Override
    public List<Index> getIndexes() {
        return ways;
    }

    @Override
    public Row getRow(SessionLocal session, long number) {
        return new RememberedRow(runs, runs.runOf(number), number);
    }

    @Override
    public @Nullable Column getRowIdColumn() {
        return null;
    }

    @Override
    public boolean canGetRowCount(SessionLocal session) {
        return true;
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
    public long getMaxDataModificationId() {
        return 0;
    }

    @Override
    public boolean isDeterministic() {
        return true;
    }

    @Override
    public TableType getTableType() {
        return TableType.EXTERNAL_TABLE_ENGINE;
    }

    @Override
    public boolean canDrop() {
        return true;
    }

    @Override
    public void checkSupportAlter() {
        throw readOnly();
    }

    @Override
    public Index addIndex(
            SessionLocal session,
            String name,
            int id,
            IndexColumn[] columns,
            int uniqueColumns,
            IndexType type,
            boolean isNew,
            String comment) {
        throw readOnly();
    }

    @Override
    public void addRow(SessionLocal session, Row row) {
        throw readOnly();
    }

    @Override
    public void removeRow(SessionLocal session, Row row) {
        throw readOnly();
    }

    @Override
    public long truncate(SessionLocal session) {
        throw readOnly();
    }

    @Override
    public void close(SessionLocal session) {
        // nothing is open
    }
}
