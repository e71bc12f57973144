package dev.verbale.engine.scope;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** Which throwables a test, a container or the run saw lately: a failure is written once, and asks for evidence once. */
final class FailureMemory {

    /** Enough for a failure that passes through its causes; keeping every failure would grow with a looping test. */
    private static final int REMEMBERED = 16;

    private static final int DEEPEST_CAUSE = 20;

    private final Deque<Seen> seen = new ArrayDeque<>(2);

    private static final class Seen {
        final Throwable failure;
        boolean evidence;
        int id;

        Seen(Throwable failure) {
            this.failure = failure;
        }
    }

    synchronized boolean seesFirst(Throwable failure, UnaryOperator<@Nullable Throwable> cause) {
        int depth = 0;
        for (Throwable one = failure; one != null && depth < DEEPEST_CAUSE; one = cause.apply(one), depth++) {
            Seen known = seen(one);
            if (known != null && known.evidence) return false;
        }
        remember(failure).evidence = true;
        return true;
    }

    synchronized int written(Throwable failure) {
        Seen known = seen(failure);
        return known == null ? 0 : known.id;
    }

    synchronized void wrote(Throwable failure, int id) {
        remember(failure).id = id;
    }

    private Seen remember(Throwable failure) {
        Seen known = seen(failure);
        if (known != null) return known;
        if (seen.size() == REMEMBERED) seen.removeFirst();
        var fresh = new Seen(failure);
        seen.addLast(fresh);
        return fresh;
    }

    private @Nullable Seen seen(Throwable failure) {
        for (Seen known : seen) if (known.failure == failure) return known;
        return null;
    }
}
