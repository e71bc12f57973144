package dev.verbale.internal;

import dev.verbale.event.Event;
import dev.verbale.recorder.Scope;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/** A scope with its place among the others. */
class ScopeNode extends AtomicBoolean implements Scope {

    private static final long serialVersionUID = 1;

    private final int id;
    final transient @Nullable ScopeNode outer;
    final transient Owner owner;
    /** What was current on the starting thread before. */
    final transient @Nullable ScopeNode before;

    /** What began it; null for the run, which nothing begins. */
    transient volatile @Nullable Event start;
    /** In which journal of this JVM its beginning stands, see {@link Minutes}; 0 for none. */
    transient volatile int generation;

    ScopeNode(int id, @Nullable ScopeNode outer, Owner owner, @Nullable ScopeNode before) {
        this.id = id;
        this.outer = outer;
        this.owner = owner;
        this.before = before;
    }

    @Override
    public final int id() {
        return id;
    }

    /** Whether this call is the one that ends it. It is its own flag: a step is made for each of millions of steps. */
    final boolean endsNow() {
        return compareAndSet(false, true);
    }

    final boolean hasEnded() {
        return get();
    }

    /** The test, the container or the run that this is or lies in. */
    final ScopeNode ofOwner() {
        ScopeNode node = this;
        for (ScopeNode around = node.outer; around != null && around.owner == owner; around = around.outer)
            node = around;
        return node;
    }

    /** Whether this is {@code other} or lies inside it. */
    final boolean isWithin(ScopeNode other) {
        for (ScopeNode node = this; node != null; node = node.outer) if (node == other) return true;
        return false;
    }

    /**
     * Puts back what was current before this, where this or something left open inside it is current.
     *
     * @return whether that was so; it is not on another thread, or after something around it was left
     */
    final boolean leave(Seat seat) {
        ScopeNode here = seat.here;
        if (here == null || !here.isWithin(this)) return false;
        seat.here = before;
        return true;
    }
}
