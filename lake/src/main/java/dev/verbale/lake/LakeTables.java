package dev.verbale.lake;

import dev.verbale.folder.FolderTree;
import dev.verbale.query.AskedTables;
import dev.verbale.query.QueryException;
import dev.verbale.query.TableReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.duckdb.DuckDBConnection;
import org.jspecify.annotations.Nullable;

/**
 * The tables of a lake, for questions in SQL: the same as those of a history, and {@code lake.*}, which are the files as they are. Asked by an
 * engine in this process, that may read these files and nothing else.
 *
 * <p>May be used from several threads.
 *
 * @since 0.2.0
 */
public final class LakeTables implements AutoCloseable {

    /** Asks which tables there are: rows of {@code table_name}, {@code column_name} and {@code data_type}. */
    public static final String COLUMNS =
            "select case when table_schema = 'lake' then 'lake.' || table_name else table_name end as table_name,"
                    + " column_name, lower(data_type) as data_type from information_schema.columns"
                    + " where table_schema in ('verbale', 'lake') order by table_schema desc, table_name, ordinal_position";

    private static final int MEGABYTES = 1_000;

    private final DuckDBConnection engine;
    private final Path spill;

    private LakeTables(DuckDBConnection engine, Path spill) {
        this.engine = engine;
        this.spill = spill;
    }

    /**
     * Of a lake as it is now.
     *
     * @param project whose runs; null for those of all projects
     * @throws IOException where something of the lake is missing, or not as it has to be
     */
    public static LakeTables of(Lake lake, @Nullable String project) throws IOException {
        Path spill = Files.createTempDirectory("verbale-lake");
        try {
            DuckDBConnection engine = ColumnEngine.open(MEGABYTES, spill).unwrap(DuckDBConnection.class);
            var tables = new LakeTables(engine, spill);
            try {
                make(engine, lake, project);
                return tables;
            } catch (SQLException | IOException failed) {
                tables.close();
                throw failed;
            }
        } catch (SQLException failed) {
            FolderTree.delete(spill);
            throw ColumnEngine.refused(failed);
        } catch (IOException failed) {
            FolderTree.delete(spill);
            throw failed;
        }
    }

    private static void make(DuckDBConnection engine, Lake lake, @Nullable String project)
            throws IOException, SQLException {
        Map<LakeTable, List<String>> files = new EnumMap<>(LakeTable.class);
        for (LakeTable table : LakeTable.values()) files.put(table, new ArrayList<>());
        for (DayManifest day : DayManifest.all(lake.path().toAbsolutePath(), project)) {
            for (var of : day.files().entrySet())
                for (String name : of.getValue())
                    Objects.requireNonNull(files.get(of.getKey()))
                            .add(lake.file(of.getKey(), day.partition(), name)
                                    .toAbsolutePath()
                                    .toString());
        }
        ColumnEngine.execute(engine, "create schema lake");
        for (var of : files.entrySet())
            ColumnEngine.execute(
                    engine, "create view lake." + of.getKey().word() + " as " + rows(of.getKey(), of.getValue()));
        ColumnEngine.execute(engine, "create schema verbale");
        ColumnEngine.execute(engine, "set search_path = 'verbale'");
        for (String view : views()) ColumnEngine.execute(engine, view);
        ColumnEngine.execute(
                engine,
                "set allowed_directories = [" + ColumnEngine.text(lake.path().toAbsolutePath() + "/") + "]");
        ColumnEngine.execute(engine, "set enable_external_access = false");
        ColumnEngine.execute(engine, "set lock_configuration = true");
    }

    private static String rows(LakeTable table, List<String> files) {
        if (files.isEmpty())
            return "select "
                    + table.columns().stream()
                            .map(column -> "cast(null as " + column.type() + ") as " + column.name())
                            .collect(Collectors.joining(", "))
                    + ", cast(null as varchar) as project, cast(null as date) as day where false";
        return "select * from " + ColumnEngine.parquet(files, "true, hive_types = {'project': varchar, 'day': date}");
    }

    /** The statements that make the tables of a history out of the files; any engine with SQL takes them. */
    public static List<String> views() {
        try (InputStream in = Objects.requireNonNull(LakeTables.class.getResourceAsStream("views.sql"))) {
            String all = new String(in.readAllBytes(), StandardCharsets.UTF_8).replaceAll("(?m)^--.*\\R", "");
            List<String> views = new ArrayList<>();
            for (String one : all.split(";", -1)) if (!one.isBlank()) views.add(one.strip());
            return views;
        } catch (IOException unreadable) {
            throw new IllegalStateException("views.sql is in no jar", unreadable);
        }
    }

    /** Asks them. */
    public TableReader reader() {
        return TableReader.of(new Asked(engine));
    }

    private record Asked(DuckDBConnection engine) implements AskedTables {

        @Override
        public Connection connect() throws SQLException {
            Connection another = engine.duplicate();
            ColumnEngine.execute(another, "use verbale");
            return another;
        }

        /** The engine's own parser says what is a question: a folder that may be read could be written too. */
        @Override
        public void before(Connection connection, String sql) throws SQLException, QueryException {
            try (PreparedStatement statement = connection.prepareStatement("select json_serialize_sql(?::varchar)")) {
                statement.setString(1, sql);
                try (ResultSet found = statement.executeQuery()) {
                    found.next();
                    String parsed = String.valueOf(found.getString(1));
                    if (parsed.startsWith("{\"error\":true") && parsed.contains("Only SELECT statements"))
                        throw new QueryException(
                                "this is no question: its answer has no rows. Only select is of use here");
                }
            }
        }
    }

    @Override
    public void close() {
        try {
            engine.close();
        } catch (SQLException gone) {
            // nothing is in it that anybody could lose
        }
        try {
            FolderTree.delete(spill);
        } catch (IOException stays) {
            // among the system's temporary files, which it sweeps
        }
    }
}
