package dev.verbale.engine.scope;

import java.lang.ref.WeakReference;
import org.jspecify.annotations.Nullable;

/** What the recorder knows of one thread; only that thread touches it, apart from the thread that makes it. */
public final class ThreadContext {

    /** JUnit runs the body of a preemptive timeout on a thread of its own, made by and for the calling thread. */
    private static final String TIMEOUT_THREAD = "junit-timeout-thread-";

    /** The innermost scope that was started on this thread, or null for none. */
    public @Nullable ScopeNode current;

    /** Whether this thread is inside the recorder: a log adapter hears the lines that storing its last line caused. */
    public boolean recording;

    /** How many values this thread asks for their texts, one inside the other. */
    public int asking;

    /** Calls so far; some of them are timed. */
    public int calls;

    /** What was current on the thread that made this one. Weak: a pool's thread outlives the test that made it. */
    private @Nullable WeakReference<ScopeNode> makersScope;

    /** The context of a thread that the thread of this one is making. */
    public ThreadContext ofNewThread() {
        var context = new ThreadContext();
        if (current != null) context.makersScope = new WeakReference<>(current);
        return context;
    }

    /** A new thread inherits only where it can do nothing but its maker's work; a pool would carry tests into others. */
    public void settle() {
        WeakReference<ScopeNode> inherited = makersScope;
        if (inherited == null) return;
        makersScope = null;
        if (Thread.currentThread().getName().startsWith(TIMEOUT_THREAD)) current = inherited.get();
    }
}
