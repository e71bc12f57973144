package dev.verbale.results;

import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A container, test or step while its journal is read: what began it, what happened in it, and how it ended so far. */
final class OpenNode {

    final @Nullable OpenNode outer;
    final Event start;
    private final List<Object> inside = new ArrayList<>(); // entries and steps, in order
    private long lastAt;
    private boolean ended; // what is recorded later, such as a promised paper, makes it no longer

    Outcome outcome = Outcome.UNFINISHED;

    @Nullable
    String reason;

    @Nullable
    Failure failure;

    int notRun;

    @Nullable
    Duration budget;

    About about = About.NOTHING;

    OpenNode(@Nullable OpenNode outer, Event start) {
        this.outer = outer;
        this.start = start;
        this.lastAt = start.at();
    }

    void add(Entry entry) {
        inside.add(entry);
    }

    /** The promise of a paper is kept: the paper stands for it now. */
    void remove(int promise) {
        inside.removeIf(one -> one instanceof Entry.PaperEntry paper && !paper.came() && paper.size() == promise);
    }

    void add(OpenNode step) {
        inside.add(step);
    }

    /** Something of it was recorded at {@code at}; what is around it lasted at least as long. */
    void lastedUntil(long at) {
        for (OpenNode node = this; node != null; node = node.outer)
            if (!node.ended) node.lastAt = Math.max(node.lastAt, at);
    }

    void ended(long at, Outcome how, @Nullable String why, @Nullable Failure thrown) {
        lastAt = at;
        ended = true;
        outcome = how;
        reason = why;
        failure = thrown;
    }

    Duration took() {
        return Duration.ofNanos((lastAt - start.at()) * 1_000);
    }

    List<Entry> entries(StepMaking making) {
        List<Entry> entries = new ArrayList<>(inside.size());
        for (Object one : inside) {
            if (one instanceof Entry entry) entries.add(entry);
            else if (one instanceof OpenNode step) entries.add(making.make(step));
        }
        return entries;
    }

    /** Makes the finished step of one that was read. */
    @FunctionalInterface
    interface StepMaking {
        Entry make(OpenNode step);
    }

    static Instant moment(Instant wall, long at) {
        return wall.plusNanos(at * 1_000);
    }
}
