package dev.verbale.query;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Properties;

/** Where tables lie, and as whom one comes there. */
record Database(String url, String user, String password) {

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

    Connection connect() throws SQLException {
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
}
