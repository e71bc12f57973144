package dev.verbale.query;

import java.sql.SQLException;

/** What a database says of a statement, without what its driver adds for programmers. */
final class SqlMessage {

    private SqlMessage() {}

    static String of(SQLException thrown) {
        String message = String.valueOf(thrown.getMessage());
        return message.replaceFirst("(?s); SQL statement:.*", "")
                .replaceFirst("(?s)\\s+Position: (\\d+)\\s*$", " (at character $1)")
                .strip();
    }
}
