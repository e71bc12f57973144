package dev.verbale.results;

import dev.verbale.event.ContainerStarted;
import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A container, test or step while its journal is read: what began it, what happened in it, and how it ended so far.
 *
 * <p>Steps lie in each other no deeper than {@link #DEEPEST}. What a journal has deeper is shown side by side in the last
 * one, in its order, and that one says how many there are: who walks a tree of results may walk it by recursion.
 */
final class OpenNode {

    /** Deeper than anybody reads, and shallow enough for every writer of JSON. */
    static final int DEEPEST = 100;

    final @Nullable OpenNode outer;
    private @Nullable Event start;
    /** Of steps in each other; 0 for what is no step. */
    private final int depth;
    /** Where what happens in here is shown: in here, or where this is too deep, in the last one that is not. */
    private final OpenNode shown;

    /** Entries, pending ones, steps and what is unknown, in order. Most steps have none. */
    private List<Object> inside = List.of();

    private int folded;
    private long lastAt;
    private boolean ended; // what is recorded later, such as a late attachment, makes it no longer

    Outcome outcome = Outcome.UNFINISHED;

    @Nullable
    String reason;

    @Nullable
    Failure failure;

    int notRun;

    List<String> blockedBy = List.of();

    @Nullable
    Duration budget;

    About about = About.NOTHING;

    /** What began in the same test, or outside of all tests. */
    final Scope scope;

    /** What began in one test, in its order. */
    static final class Scope {
        private final List<OpenNode> steps = new ArrayList<>(); // and what is unknown
        private final List<Integer> ids = new ArrayList<>();
        private int open; // tests and containers that began in here, and make it last longer
        private int openSteps;
        private int pending;
        private final @Nullable OpenNode test;

        private Scope(@Nullable OpenNode test) {
            this.test = test;
        }

        /** The test that it is of; null where it is of none. */
        @Nullable
        OpenNode test() {
            return test;
        }

        void stepBegan() {
            openSteps++;
        }

        void stepEnded() {
            openSteps--;
        }

        void waits() {
            pending++;
        }

        void waitsNoMore() {
            pending--;
        }

        /** Whether something in here is known to be going on yet. */
        boolean isGoing() {
            return open > 0 || openSteps > 0 || pending > 0;
        }

        /** All was read: what lies around a step lasted at least as long. */
        void handOnLast() {
            for (int i = steps.size() - 1; i >= 0; i--) steps.get(i).handOnLast();
        }

        void add(OpenNode step) {
            steps.add(step);
        }

        /** {@code id} is that of something in here. */
        void names(int id) {
            ids.add(id);
        }

        void opens() {
            open++;
        }

        void closes() {
            open--;
        }

        boolean hasOpen() {
            return open > 0;
        }

        List<Integer> ids() {
            return ids;
        }
    }

    OpenNode(@Nullable OpenNode outer, @Nullable Event start) {
        this.outer = outer;
        this.start = start;
        this.scope = outer == null || start instanceof TestStarted || start instanceof ContainerStarted
                ? new Scope(start instanceof TestStarted ? this : null)
                : outer.scope;
        boolean inner = start instanceof StepStarted || start instanceof UnknownEvent;
        this.depth = inner && outer != null ? outer.depth + 1 : 0;
        this.shown = outer != null && depth > DEEPEST ? outer.shown : this;
        this.lastAt = startedAt();
    }

    /** What began it; null for the run, which nothing begins. */
    @Nullable
    Event start() {
        return start;
    }

    /** A {@link dev.verbale.event.TestIdentified} says the key and the name that its test-started did not know. */
    void startedAs(Event fuller) {
        start = fuller;
    }

    /** What began it, where something did. */
    Event started() {
        if (start == null) throw new IllegalStateException("nothing begins a run");
        return start;
    }

    private long startedAt() {
        return start == null ? 0 : start.at();
    }

    void add(Entry entry) {
        shown.inside().add(entry);
    }

    /** For adding to. */
    private List<Object> inside() {
        if (inside.isEmpty()) inside = new ArrayList<>(4);
        return inside;
    }

    /** Before what began later: it is written when it is over, and is read where it began. */
    void addWhereItBegan(Entry.ExchangeEntry exchange, long at) {
        List<Object> all = shown.inside();
        int index = all.size();
        while (index > 0 && isLater(all.get(index - 1), exchange, at)) index--;
        all.add(index, exchange);
    }

    private static boolean isLater(Object one, Entry.ExchangeEntry exchange, long at) {
        if (one instanceof OpenNode node) return node.startedAt() > at;
        Entry entry = one instanceof Pending pending ? pending.entry() : (Entry) one;
        return entry.at().isAfter(exchange.at());
    }

    /** One that may still be completed. */
    private record Pending(int id, Entry.PendingEntry entry) {}

    void addPending(int id, Entry.PendingEntry entry) {
        shown.inside().add(new Pending(id, entry));
    }

    /** The pending attachment {@code id} came, and stands for itself now. */
    void completed(int id) {
        shown.inside().removeIf(one -> one instanceof Pending pending && pending.id() == id);
    }

    void add(OpenNode step) {
        shown.inside().add(step);
        if (step.shown != step) shown.folded++;
    }

    /** Something of it was recorded at {@code at}. */
    void lastedUntil(long at) {
        if (!ended) lastAt = Math.max(lastAt, at);
    }

    /** What lies around it lasted at least as long. For each node once, the inner ones first. */
    void handOnLast() {
        if (outer != null) outer.lastedUntil(lastAt);
    }

    void ended(long at, Outcome how, @Nullable String why, @Nullable Failure thrown) {
        lastAt = Math.max(at, startedAt());
        ended = true;
        outcome = how;
        reason = why;
        failure = thrown;
    }

    boolean hasEnded() {
        return ended;
    }

    Duration duration() {
        return Duration.ofNanos((lastAt - startedAt()) * 1_000);
    }

    /**
     * @param making makes the finished step of one that was read
     * @param wall when the journal began
     */
    List<Entry> entries(Function<OpenNode, Entry> making, Instant wall) {
        if (inside.isEmpty()) return List.of();
        List<Entry> entries = new ArrayList<>(inside.size() + 1);
        for (Object one : inside) {
            if (one instanceof Entry entry) entries.add(entry);
            else if (one instanceof Pending pending) entries.add(pending.entry());
            else if (one instanceof OpenNode step) entries.add(making.apply(step));
        }
        if (folded > 0)
            entries.add(new Entry.LogEntry(
                    moment(wall, lastAt),
                    LogWritten.text(
                            lastAt,
                            0,
                            folded + (folded == 1 ? " step lies" : " steps lie") + " deeper than " + DEEPEST
                                    + " in each other, and stand here side by side in the order in which they began",
                            null)));
        return entries;
    }

    static Instant moment(Instant wall, long at) {
        return wall.plusNanos(at * 1_000);
    }
}
