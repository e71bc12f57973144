package dev.verbale.engine.journal;

import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.ProblemMet;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/**
 * Brings events into the journal, and counts those that do not get there. Nothing that could not be written is forgotten: what
 * is missing is written down as soon as there is room again, and so are the beginnings of what is still open, without which
 * nothing that comes later would have a place.
 *
 * <p>A journal may vanish while it is written: somebody cleans the build's folder, and the system keeps taking bytes for a
 * file that no name leads to. So now and then it is looked for, and where it is gone a new one is begun, which says so.
 */
public final class RunJournal {

    private static final long BETWEEN_CHECKS_MICROS = 200_000;

    private final MonotonicClock clock = new MonotonicClock();
    private final Problems problems = new Problems(this);

    private final Missing missing = new Missing();
    private final AtomicLong lastChecked = new AtomicLong();
    private final AtomicBoolean isReopening = new AtomicBoolean();
    private final List<JournalWriter> deleted = new CopyOnWriteArrayList<>();

    private @Nullable Reopening reopening;
    private volatile @Nullable JournalWriter journal;
    /** Counts the journals; what was begun in an earlier one has to be begun in this one too. */
    private volatile int generation;
    /** Whether something is missing that the journal does not say. */
    private volatile boolean unreported;

    /** Opens another journal in the place of one that is gone. */
    @FunctionalInterface
    public interface Reopening {
        JournalWriter open() throws IOException;
    }

    /** The clock of the journal. */
    public MonotonicClock clock() {
        return clock;
    }

    /** What went wrong in recording. */
    public Problems problems() {
        return problems;
    }

    /** Microseconds on the clock of the journal. */
    public long now() {
        return clock.micros();
    }

    /** From now on events are written; problems that were met before are only printed. */
    public void open(JournalWriter writer, Reopening how) {
        journal = writer;
        reopening = how;
        generation = 1;
    }

    /**
     * Writes what happened in {@code scope}.
     *
     * @return whether it was written
     */
    public boolean append(ScopeNode scope, Event event) {
        reopenIfGone(event.at());
        if (scope.journal() != generation) begin(scope);
        return append(event);
    }

    /** Writes that {@code scope} begins; where that cannot be done now, it is once there is room. */
    public void begins(ScopeNode scope, Event start) {
        scope.start = start;
        reopenIfGone(start.at());
        if (scope.outer != null && scope.outer.journal() != generation) begin(scope.outer);
        int now = generation;
        if (append(start)) scope.begunIn(now);
    }

    /** What lies around it first. Without recursion: there may be as many steps in each other as there is stack. */
    private void begin(ScopeNode innermost) {
        int now = generation;
        Deque<ScopeNode> missingHere = new ArrayDeque<>();
        for (ScopeNode node = innermost; node != null && node.journal() != now; node = node.outer)
            if (node.start == null) node.begunIn(now); // the run, which nothing begins
            else if (!node.hasEnded()) missingHere.push(node);
        for (ScopeNode node : missingHere) {
            Event start = node.start;
            if (start == null) continue;
            boolean counted = node.journal() == 0; // as missing, when it had no room
            if (unwritten(start) != null) return; // no room still; what comes now is counted by itself
            node.begunIn(now);
            if (counted) missing.add(JournalFormat.word(start), -1);
        }
    }

    /** Writes what belongs to the run. */
    public boolean append(Event event) {
        IOException unwritten = unwritten(event);
        if (unwritten == null) return true;
        missed(JournalFormat.word(event), 1);
        problems.add("writing to the journal: " + unwritten);
        return false;
    }

    /** The disk that refused the cause of a problem refuses the problem too; the cause is what is counted. */
    void problem(String text) {
        unwritten(new ProblemMet(clock.micros(), text));
    }

    /** Why it could not be written; null where it was. */
    private @Nullable IOException unwritten(Event event) {
        JournalWriter writer = journal;
        if (writer == null) return null;
        try {
            writer.append(event);
        } catch (IOException unwritten) {
            return unwritten;
        }
        if (unreported) reportMissing(writer);
        return null;
    }

    /** There is room again. */
    private void reportMissing(JournalWriter writer) {
        unreported = false;
        try {
            Map<String, Long> now = missing();
            if (!now.isEmpty()) writer.append(new EventsMissed(clock.micros(), now));
        } catch (IOException fullAgain) {
            unreported = true;
        }
    }

    /** So much of this kind should have been recorded and could not be. */
    public void missed(String kind, long count) {
        missing.add(kind, count);
        unreported = true;
    }

    /** What is missing until now, by what it was. */
    public Map<String, Long> missing() {
        Map<String, Long> now = missing.now();
        long gone = 0;
        for (JournalWriter one : deleted) gone += one.written();
        if (gone > 0) now.put("deleted", gone);
        return now;
    }

    private void reopenIfGone(long at) {
        long last = lastChecked.get();
        if (at - last > BETWEEN_CHECKS_MICROS && lastChecked.compareAndSet(last, at)) reopenIfGone();
    }

    /** Begins another journal where this one is gone. */
    @SuppressWarnings("NonAtomicVolatileUpdate") // only one reopens at a time
    private void reopenIfGone() {
        JournalWriter writer = journal;
        Reopening how = reopening;
        if (writer == null || how == null || writer.isThere() || !isReopening.compareAndSet(false, true)) return;
        try {
            JournalWriter fresh = how.open();
            deleted.add(writer);
            journal = fresh;
            generation++;
            unreported = true;
            problems.add(
                    "The run's folder was deleted while it was recorded: "
                            + writer.written()
                            + " events until now are gone, with the attachments of their tests. From here on it is recorded anew");
        } catch (IOException notYet) {
            problems.add("the run's folder was deleted while it was recorded, and cannot be made again: " + notYet);
        } finally {
            isReopening.set(false);
        }
    }

    /** @return what is missing, the last word included where that could not be written */
    public Map<String, Long> end(long overheadNanos) {
        reopenIfGone();
        Map<String, Long> now = missing();
        unreported = false; // the last word says it
        append(new JournalEnded(clock.micros(), Missing.all(now), now, overheadNanos / 1_000));
        return missing();
    }

    /** Waits for the disk. */
    public void sync() throws IOException {
        JournalWriter writer = journal;
        if (writer != null) writer.sync();
    }
}
