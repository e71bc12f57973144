package dev.verbale.viewer;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.Worker;
import dev.verbale.results.progress.RunGrowth;
import java.io.IOException;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** One run of the folder: how it went as far as it was read, and whether it goes on. */
final class ViewedRun {

    /** What is at work and writes nothing for so long was killed. */
    private static final Duration LONGEST_SILENCE = Duration.ofMinutes(10);

    /** A fifth of one processor at most goes into the page of a run that goes. */
    private static final int REST_BY_COST = 4;

    private final RunFolder folder;
    private final RunGrowth growth;

    private volatile @Nullable RunRow line;
    private volatile @Nullable String unreadable;
    private volatile boolean isGoing;

    /** The number of the last change in the folder that was one of this run; 0 for none. */
    private volatile long changed;

    private volatile long restsUntil = System.nanoTime();

    ViewedRun(RunFolder folder) {
        this.folder = folder;
        this.growth = new RunGrowth(folder);
    }

    String name() {
        return folder.name();
    }

    RunFolder folder() {
        return folder;
    }

    /** How it went; null where it was not read yet, or cannot be. */
    @Nullable
    RunRow line() {
        return line;
    }

    /** Why it cannot be read; null where it can be, or was not tried. */
    @Nullable
    String unreadable() {
        return unreadable;
    }

    /** Whether a JVM of it has not closed its journal, and wrote something in the last minutes. */
    boolean isGoing() {
        return isGoing;
    }

    long changed() {
        return changed;
    }

    void changed(long number) {
        changed = number;
    }

    /** Its page as it goes took so long: for four times as long nothing of it is new. */
    void rest(long nanos) {
        restsUntil = System.nanoTime() + REST_BY_COST * nanos;
    }

    /** Whether it may be looked at again. */
    boolean isRested() {
        return System.nanoTime() - restsUntil >= 0;
    }

    /** Whether it was never read. */
    boolean isNew() {
        return line == null && unreadable == null;
    }

    /**
     * Reads it where it has grown. By one thread at a time.
     *
     * @return whether anything is different now
     */
    boolean look() {
        boolean wasGoing = isGoing;
        boolean hasGrown;
        try {
            hasGrown = growth.look();
            if (hasGrown || isNew()) {
                Run run = RunReader.read(folder.path(), TestKeeper.ENDS);
                line = RunRow.of(run);
                unreadable = null;
                isGoing = !run.workers().stream().allMatch(Worker::ended);
            }
        } catch (IOException | RuntimeException broken) {
            hasGrown = !String.valueOf(broken.getMessage()).equals(unreadable);
            unreadable = String.valueOf(broken.getMessage());
            isGoing = false;
        }
        if (isGoing && growth.silent().compareTo(LONGEST_SILENCE) > 0) isGoing = false;
        return hasGrown || wasGoing != isGoing;
    }
}
