package dev.verbale.query;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;

/** Where tables lie, and as whom one comes there. */
record Database(String url, String user, String password) implements AskedTables {

    /** The schema of all our tables: in a database that others use too, nothing of theirs is touched. */
    static final String SCHEMA = "verbale";

    /** Who may only read, in a database of our own. */
    static final String READER = "reader";

    /** A PostgreSQL server's. */
    static Database ofTeam(String url, String user, String password) {
        if (!url.startsWith("jdbc:postgresql:"))
            throw new IllegalArgumentException(
                    "'" + url + "' is no address of a PostgreSQL database, such as jdbc:postgresql://host/name");
        return new Database(url, user, password);
    }

    boolean isOurs() {
        return url.startsWith("jdbc:h2:");
    }

    boolean isInMemory() {
        return url.startsWith("jdbc:h2:mem:");
    }

    Database asReader() {
        return new Database(url + ";SCHEMA=" + SCHEMA, READER, "");
    }

    @Override
    public Connection connect() throws SQLException {
        var properties = new Properties();
        properties.setProperty("user", user);
        properties.setProperty("password", password);
        if (url.startsWith("jdbc:postgresql:")) {
            properties.setProperty("currentSchema", SCHEMA);
            properties.setProperty("reWriteBatchedInserts", "true");
            properties.setProperty("ApplicationName", "verbale");
        }
        return DriverManager.getConnection(url, properties);
    }

    @Override
    public void before(Connection connection, String sql) throws SQLException, QueryException {
        if (isOurs()) rowByRow(connection);
        else refuseWhoMayWrite(connection);
    }

    private void refuseWhoMayWrite(Connection connection) throws SQLException, QueryException {
        try (Statement statement = connection.createStatement();
                ResultSet found =
                        statement.executeQuery("select (select rolsuper from pg_roles where rolname = current_user)"
                                + " or has_schema_privilege('" + SCHEMA + "', 'create')"
                                + " or has_table_privilege('" + SCHEMA + ".stored_runs', 'insert')")) {
            if (found.next() && found.getBoolean(1))
                throw new QueryException("the user '" + user
                        + "' may change this database. Ask as one who may only read it: create a role, and name it with "
                        + "--reader when the tables are filled");
        }
    }

    /** Or an answer would be put on the disk before its first row is read, however long it is. */
    private static void rowByRow(Connection connection) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("set lazy_query_execution 1");
        }
    }
}
