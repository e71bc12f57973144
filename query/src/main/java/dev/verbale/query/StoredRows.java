package dev.verbale.query;

import java.util.Collections;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.statement.PreparedBatch;
import org.jspecify.annotations.Nullable;

/** Rows for one table, sent many at a time. */
final class StoredRows implements AutoCloseable {

    private static final int AT_ONCE = 1_000;

    private final PreparedBatch batch;

    StoredRows(Handle handle, String table, String... columns) {
        batch = handle.prepareBatch("insert into " + Database.SCHEMA + "." + table + " (" + String.join(", ", columns)
                + ") values (" + String.join(", ", Collections.nCopies(columns.length, "?")) + ")");
    }

    void add(@Nullable Object... values) {
        for (int i = 0; i < values.length; i++) batch.bind(i, values[i]);
        batch.add();
        if (batch.size() >= AT_ONCE) batch.execute();
    }

    @Override
    public void close() {
        try (batch) {
            if (batch.size() > 0) batch.execute();
        }
    }
}
