package dev.verbale.query;

import dev.verbale.history.History;
import dev.verbale.query.remembered.RememberedTables;

/**
 * The tables of what is remembered of many runs. Those of runs and reasons are made in memory; that of tests is read from the history's
 * own files as a question asks for it, so that nothing has to be filled, and any number of processes may ask at once.
 *
 * <p>Safe for several threads.
 *
 * @since 0.2.0
 */
public final class HistoryTables implements AutoCloseable {

    private final RunTables tables;

    private HistoryTables(RunTables tables) {
        this.tables = tables;
    }

    /**
     * Of these runs.
     *
     * @throws QueryException where they cannot be made
     */
    public static HistoryTables of(History history) throws QueryException {
        RunTables tables = RunTables.inMemory();
        try {
            tables.replaceViews(handle -> RememberedTables.make(handle, history));
        } catch (QueryException | RuntimeException failed) {
            tables.close();
            throw failed;
        }
        return new HistoryTables(tables);
    }

    /** Asks these tables, as a user who may only read; for as long as they are open. */
    public TableReader reader() {
        return tables.reader();
    }

    @Override
    public void close() {
        tables.close();
    }
}
