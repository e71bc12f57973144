package dev.verbale.query;

import java.sql.SQLException;

/** What a database says of a statement, without what its driver adds for programmers. */
final class SqlMessage {

    private SqlMessage() {}

    /** Whether somebody broke it off (SQLSTATE 57014 of the standard). */
    static boolean isCancelled(SQLException thrown) {
        return "57014".equals(thrown.getSQLState());
    }

    static String of(SQLException thrown) {
        if (isOutOfMemory(thrown))
            return "it needs more memory than there is. Ask for less, or for an order of fewer rows";
        String message = String.valueOf(thrown.getMessage());
        return message.replaceFirst("(?s); SQL statement:.*", "")
                .replaceFirst("(?s)\\s+Position: (\\d+)\\s*$", " (at character $1)")
                .strip();
    }

    private static boolean isOutOfMemory(SQLException thrown) {
        for (Throwable one = thrown; one != null; one = one.getCause())
            if (one instanceof OutOfMemoryError
                    || String.valueOf(one.getMessage()).startsWith("Out of Memory")) return true;
        return false;
    }
}
