package dev.verbale.query;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jdbi.v3.core.Handle;

/**
 * Makes the tables, or brings those of an earlier version to this one: each file of SQL once, in their order, and a row in
 * {@code stored_versions} for each. A later version adds a file, and changes none.
 */
final class TableVersions {

    /** Before the first filling there are no indexes: kept up to date row by row, they were ten times as large. */
    static final int WITHOUT_INDEXES = 5;

    static final int NEWEST = 6;

    private static final List<String> FILES = List.of("5-tables.sql", "6-by-test.sql");

    /** What was before was never published. */
    private static final int FIRST = 5;

    private final Handle handle;

    TableVersions(Handle handle) {
        this.handle = handle;
    }

    /** Whether somebody filled the schema before, be it with this version or another. */
    boolean isThere() {
        return has("stored_runs");
    }

    /** @throws IllegalStateException where a later Verbale made the tables, or they have no version that is known */
    void bringTo(int version) {
        boolean wasThere = isThere();
        handle.execute("create schema if not exists " + Database.SCHEMA);
        handle.execute(
                "create table if not exists " + Database.SCHEMA + ".stored_versions (version integer primary key)");
        int there = handle.createQuery("select coalesce(max(version), 0) from " + Database.SCHEMA + ".stored_versions")
                .mapTo(Integer.class)
                .one();
        if (there > NEWEST || (wasThere && there < FIRST))
            throw new IllegalStateException("the tables in the schema " + Database.SCHEMA + " are of another version ("
                    + (there == 0 ? "unknown" : there) + ") than this Verbale makes (" + NEWEST
                    + "). Use the newest Verbale, or drop the schema and fill it again");
        for (int next = Math.max(FIRST, there + 1); next <= version; next++) bringOneTo(next);
    }

    /** All of a file or nothing of it, where the database can take back what it made; H2 cannot, and is made anew. */
    private void bringOneTo(int version) {
        handle.useTransaction(within -> {
            within.execute(
                    "set schema '" + Database.SCHEMA + "'"); // of both databases; elsewhere it is named each time
            within.createScript(file(FILES.get(version - FIRST))).execute();
            within.execute("insert into stored_versions (version) values (?)", version);
        });
    }

    private boolean has(String table) {
        return handle.createQuery(
                                "select count(*) from information_schema.tables where table_schema = ? and table_name = ?")
                        .bind(0, Database.SCHEMA)
                        .bind(1, table)
                        .mapTo(Integer.class)
                        .one()
                > 0;
    }

    private static String file(String name) {
        try (InputStream sql = TableVersions.class.getResourceAsStream("tables/" + name)) {
            if (sql == null) throw new IllegalStateException("the file tables/" + name + " is missing in this Verbale");
            return new String(sql.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new IllegalStateException("the file tables/" + name + " of this Verbale cannot be read", unreadable);
        }
    }
}
