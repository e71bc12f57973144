package dev.verbale.engine.scope;

import dev.verbale.Scope;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** The scopes of a run. */
public final class Scopes {

    private final boolean adoptOrphans;
    private final AtomicInteger ids = new AtomicInteger();
    private final ScopeNode run = new ScopeNode(0, null, new ScopeState(null, false, () -> List.of("run")), null);
    private final Set<ScopeNode> openTests = ConcurrentHashMap.newKeySet();

    /** @param adoptOrphans whether what belongs to no test is given to the test that runs, where there is just one */
    public Scopes(boolean adoptOrphans) {
        this.adoptOrphans = adoptOrphans;
    }

    /** A number that nothing else in the journal has. */
    public int nextId() {
        return ids.incrementAndGet();
    }

    public ScopeNode run() {
        return run;
    }

    /** A container that begins inside {@code outer} and is current from now on. */
    public ScopeNode container(ScopeNode outer, ThreadContext context, Supplier<List<String>> folder) {
        var container = new ScopeNode(nextId(), outer, new ScopeState(outer.state, false, folder), context.current);
        context.current = container;
        return container;
    }

    /** A container that begins inside {@code outer} and that no thread is in yet. */
    public ScopeNode sharedContainer(ScopeNode outer, Supplier<List<String>> folder) {
        return new ScopeNode(nextId(), outer, new ScopeState(outer.state, false, folder), null);
    }

    /** A test that begins inside {@code outer} and is current from now on. */
    public ScopeNode test(ScopeNode outer, ThreadContext context, Supplier<List<String>> folder) {
        var test = new ScopeNode(nextId(), outer, new ScopeState(outer.state, true, folder), context.current);
        context.current = test;
        openTests.add(test);
        return test;
    }

    /** The test is over, and adopts nothing any more. */
    public void testEnded(ScopeNode test) {
        openTests.remove(test);
    }

    /** What is current on the thread of {@code context}. */
    public ScopeNode current(ThreadContext context) {
        ScopeNode current = context.current;
        if (current != null) return current;
        if (!adoptOrphans || openTests.size() != 1) return run;
        for (ScopeNode only : openTests) return only;
        return run;
    }

    /** A token of a recorder that was switched off, or of nobody, is the run's. */
    public ScopeNode node(@Nullable Scope scope) {
        return scope instanceof ScopeNode node ? node : run;
    }

    /**
     * The thread's name where it is not that of the test that the line belongs to.
     *
     * @param current what is current on this thread, where something is
     */
    public @Nullable String orphanThread(@Nullable ScopeNode current, ScopeNode scope) {
        return scope.state.isTest && current != null
                ? null
                : Thread.currentThread().getName();
    }
}
