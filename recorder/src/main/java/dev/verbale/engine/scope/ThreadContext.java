package dev.verbale.engine.scope;

import java.lang.ref.WeakReference;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What the recorder knows of one thread; only that thread touches it, apart from the thread that makes it. */
public final class ThreadContext {

    /** How the names of the threads begin that a framework makes for the body of one test. */
    private final List<String> bodyThreads;

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

    public ThreadContext(List<String> bodyThreads) {
        this.bodyThreads = bodyThreads;
    }

    /** The context of a thread that the thread of this one is making. */
    public ThreadContext ofNewThread() {
        var context = new ThreadContext(bodyThreads);
        if (current != null) context.makersScope = new WeakReference<>(current);
        return context;
    }

    /** A new thread inherits only where it can do nothing but its maker's work; a pool would carry tests into others. */
    public void settle() {
        WeakReference<ScopeNode> inherited = makersScope;
        if (inherited == null) return;
        makersScope = null;
        String name = Thread.currentThread().getName();
        for (String beginning : bodyThreads) if (name.startsWith(beginning)) current = inherited.get();
    }
}
