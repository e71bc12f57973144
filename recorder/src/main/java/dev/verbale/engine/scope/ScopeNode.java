package dev.verbale.engine.scope;

import dev.verbale.Scope;
import dev.verbale.event.Event;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * A scope, and what lies around it. A step is one, made for each of millions of steps: so two things that change are one number of
 * its own, twice the journal in which its beginning stands, and one more when it has ended.
 */
public class ScopeNode extends AtomicInteger implements Scope {

    private static final long serialVersionUID = 1;

    public final transient @Nullable ScopeNode outer;
    public final transient ScopeState state;
    /** What was current on the starting thread before. */
    public final transient @Nullable ScopeNode before;

    private final int id;

    /** What began it; null for the run, which nothing begins. */
    public transient volatile @Nullable Event start;

    public ScopeNode(int id, @Nullable ScopeNode outer, ScopeState state, @Nullable ScopeNode before) {
        this.id = id;
        this.outer = outer;
        this.state = state;
        this.before = before;
    }

    @Override
    public final int id() {
        return id;
    }

    /** In which journal of this JVM its beginning stands, counted from 1; 0 for none. */
    public final int journal() {
        return get() >> 1;
    }

    /** Its beginning stands in that journal. */
    public final void begunIn(int journal) {
        int now = get();
        while (!compareAndSet(now, journal << 1 | (now & 1))) now = get();
    }

    /** Whether this call is the one that ends it. */
    public final boolean endsNow() {
        int now = get();
        while ((now & 1) == 0) {
            if (compareAndSet(now, now | 1)) return true;
            now = get();
        }
        return false;
    }

    public final boolean hasEnded() {
        return (get() & 1) != 0;
    }

    /** The test, the container or the run that this is or lies in. */
    public final ScopeNode ofState() {
        ScopeNode node = this;
        for (ScopeNode around = node.outer; around != null && around.state == state; around = around.outer)
            node = around;
        return node;
    }

    /** Whether this is {@code other} or lies inside it. */
    public final boolean isWithin(ScopeNode other) {
        for (ScopeNode node = this; node != null; node = node.outer) if (node == other) return true;
        return false;
    }

    /**
     * Puts back what was current before this, where this or something left open inside it is current.
     *
     * @return whether that was so; it is not on another thread, or after something around it was left
     */
    public final boolean leave(ThreadContext context) {
        ScopeNode current = context.current;
        if (current == null || !current.isWithin(this)) return false;
        context.current = before;
        return true;
    }
}
