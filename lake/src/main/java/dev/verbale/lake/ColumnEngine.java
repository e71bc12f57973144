package dev.verbale.lake;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Properties;
import java.util.stream.Collectors;

/** An engine for columns in this process, with limits: it takes all memory and all processors of a machine unless somebody says otherwise. */
final class ColumnEngine {

    private ColumnEngine() {}

    /** @param spill where what does not fit into memory may lie meanwhile */
    static Connection open(int megabytes, Path spill) throws IOException {
        try {
            var properties = new Properties();
            properties.setProperty("jdbc_stream_results", "true"); // or all rows of an answer are held at once
            Connection opened = DriverManager.getConnection("jdbc:duckdb:", properties);
            try {
                execute(opened, "set memory_limit = '" + megabytes + "MB'");
                execute(
                        opened,
                        "set threads = "
                                + Math.max(1, Math.min(8, Runtime.getRuntime().availableProcessors())));
                execute(opened, "set temp_directory = " + text(spill.toString()));
                execute(opened, "set TimeZone = 'UTC'");
                execute(opened, "set preserve_insertion_order = false");
                return opened;
            } catch (SQLException failed) {
                opened.close();
                throw failed;
            }
        } catch (SQLException failed) {
            if (String.valueOf(failed.getMessage()).contains("No suitable driver"))
                throw new LakeException(
                        "a lake needs the engine DuckDB, which is not here. Put duckdb_jdbc.jar (org.duckdb:duckdb_jdbc, of Maven Central) beside"
                                + " verbale.jar; docs/lake.md has a command for it",
                        failed);
            throw refused(failed);
        }
    }

    static void execute(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    /**
     * The rows of some files.
     *
     * @param partitions whether the names of their folders are columns, and of which types
     */
    static String parquet(List<String> files, String partitions) {
        return "read_parquet([" + files.stream().map(ColumnEngine::text).collect(Collectors.joining(", "))
                + "], union_by_name = true, hive_partitioning = " + partitions + ")";
    }

    static String text(String value) {
        return "'" + value.replace("'", "''") + "'";
    }

    static LakeException refused(SQLException failed) {
        return new LakeException(
                String.valueOf(failed.getMessage()).lines().findFirst().orElse(""), failed);
    }
}
