package dev.verbale.query;

import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** Breaks a question off that takes too long, also where its rows go on and on. */
final class TimeLimit implements AutoCloseable {

    private final @Nullable Duration limit;
    private final long until;
    private volatile boolean over;

    private TimeLimit(@Nullable Duration limit) {
        this.limit = limit;
        until = System.nanoTime() + (limit == null ? 0 : limit.toNanos());
    }

    static TimeLimit of(Statement statement, @Nullable Duration limit) {
        var limited = new TimeLimit(limit);
        if (limit != null)
            CompletableFuture.delayedExecutor(limit.toMillis(), TimeUnit.MILLISECONDS)
                    .execute(() -> limited.cancel(statement));
        return limited;
    }

    private void cancel(Statement statement) {
        if (over) return;
        try {
            statement.cancel();
        } catch (SQLException gone) {
            // it has just ended
        }
    }

    /** Between two rows. */
    void check() throws QueryException {
        if (limit != null && isExceeded()) throw exceeded(limit);
    }

    /** Not every driver says that a question was broken off. */
    boolean isExceeded() {
        return limit != null && System.nanoTime() - until > 0;
    }

    static QueryException exceeded(Duration limit) {
        return new QueryException("it was broken off after " + limit.toSeconds()
                + " s. Ask for less, such as with where or" + " fetch first, or give it longer with --time-limit");
    }

    @Override
    public void close() {
        over = true;
    }
}
