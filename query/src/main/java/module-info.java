/** Runs, and what is remembered of them, as tables for questions in SQL. */
@SuppressWarnings("module") // whom it exports a package to is built later
module dev.verbale.query {
    requires transitive dev.verbale.history;
    requires com.h2database;
    requires transitive java.sql;
    requires org.apache.commons.csv;
    requires org.jdbi.v3.core;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.query;
    exports dev.verbale.query.values to
            dev.verbale.lake; // which has the same texts
    exports dev.verbale.query.remembered to
            com.h2database; // which makes the table
}
