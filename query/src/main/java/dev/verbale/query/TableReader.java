package dev.verbale.query;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Asks the tables, as a user of the database who may only read them. A connection that calls itself read-only is not enough: such a
 * one may still read and write files of the machine.
 *
 * <p>May be used from several threads; each question has a connection of its own.
 *
 * @since 0.2.0
 */
public final class TableReader {

    /** Asks which tables there are: rows of {@code table_name}, {@code column_name} and {@code data_type}. */
    public static final String COLUMNS = "select table_name, column_name, data_type from information_schema.columns"
            + " where table_schema = '" + Database.SCHEMA + "' and table_name not like 'stored%'"
            + " order by table_name, ordinal_position";

    private static final int FETCHED_AT_ONCE = 1_000;

    private final AskedTables tables;
    private final @Nullable Duration limit;

    private TableReader(AskedTables tables, @Nullable Duration limit) {
        this.tables = tables;
        this.limit = limit;
    }

    /** One whose questions are broken off where they and their answers take longer than {@code limit}. */
    public TableReader within(Duration limit) {
        return new TableReader(tables, limit);
    }

    /** Of any tables. */
    public static TableReader of(AskedTables tables) {
        return new TableReader(tables, null);
    }

    /**
     * Of a PostgreSQL database that {@link RunTables#at} filled.
     *
     * @param url such as {@code jdbc:postgresql://host/name}
     * @param user one who may only read; another is refused at the first question
     */
    public static TableReader at(String url, String user, String password) {
        return of(Database.ofTeam(url, user, password));
    }

    /**
     * Asks {@code sql}.
     *
     * @throws QueryException where it is no question, or the database refuses it, or it is broken off
     * @throws IOException where the answer cannot be written on
     */
    public void ask(String sql, AnswerRows rows) throws QueryException, IOException {
        try (Connection connection = tables.connect()) {
            tables.before(connection, sql);
            connection.setAutoCommit(false); // or all rows are fetched at once
            try (PreparedStatement statement = connection.prepareStatement(sql)) {
                // Before it is executed: even who may only read may change a thing or two, such as its own password.
                if (statement.getMetaData() == null)
                    throw new QueryException("this is no question: its answer has no rows. Only select is of use here");
                statement.setFetchSize(FETCHED_AT_ONCE);
                try (var limited = TimeLimit.of(statement, limit)) {
                    answer(statement, rows, limited);
                }
            } finally {
                connection.rollback();
            }
        } catch (SQLException refused) {
            throw new QueryException(SqlMessage.of(refused), refused);
        }
    }

    private void answer(PreparedStatement statement, AnswerRows rows, TimeLimit limited)
            throws SQLException, IOException, QueryException {
        try (ResultSet answer = statement.executeQuery()) {
            read(answer, rows, limited);
        } catch (SQLException broken) {
            if (limit != null && (SqlMessage.isCancelled(broken) || limited.isExceeded()))
                throw TimeLimit.exceeded(limit);
            throw broken;
        }
    }

    private static void read(ResultSet answer, AnswerRows rows, TimeLimit limit)
            throws SQLException, IOException, QueryException {
        ResultSetMetaData about = answer.getMetaData();
        int width = about.getColumnCount();
        List<String> names = new ArrayList<>(width);
        for (int i = 1; i <= width; i++) names.add(about.getColumnLabel(i));
        rows.columns(names);
        while (answer.next()) {
            limit.check();
            List<@Nullable Object> values = new ArrayList<>(width);
            for (int i = 1; i <= width; i++) values.add(plain(answer.getObject(i)));
            if (!rows.row(values)) return;
        }
    }

    /** Without the types of one database. */
    private static @Nullable Object plain(@Nullable Object value) {
        if (value == null || value instanceof Number || value instanceof Boolean || value instanceof Instant)
            return value;
        if (value instanceof OffsetDateTime time) return time.toInstant();
        if (value instanceof Timestamp time) return time.toInstant();
        return value.toString();
    }
}
