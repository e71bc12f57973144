package dev.verbale.query;

import java.sql.Connection;
import java.sql.SQLException;

/**
 * Tables that may be asked, wherever they lie.
 *
 * @since 0.2.0
 */
public interface AskedTables {

    /** A connection for one question, on which the tables are known by their plain names. Whoever asks closes it. */
    Connection connect() throws SQLException;

    /**
     * Sees to it that a question can be nothing but one, before it is asked.
     *
     * @throws QueryException where who asks might do more than read; it says what to do
     */
    void before(Connection connection, String sql) throws SQLException, QueryException;
}
