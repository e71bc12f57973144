package dev.verbale.internal;

import org.jspecify.annotations.Nullable;

/** What the recorder knows of one thread; only that thread touches it. */
final class Seat {

    /** The innermost scope that was started on this thread, or null for the run. */
    @Nullable
    ScopeNode here;

    /** Whether this thread is inside the recorder: a log adapter hears the lines that storing its last line caused. */
    boolean recording;
}
