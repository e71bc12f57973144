/** What runs came to as Parquet files, and questions about them. */
module dev.verbale.lake {
    requires transitive dev.verbale.query;
    requires static duckdb.jdbc; // only where a lake is asked
    requires java.sql;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.lake;
}
