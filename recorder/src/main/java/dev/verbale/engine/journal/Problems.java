package dev.verbale.engine.journal;

import dev.verbale.stack.StackSpace;
import java.lang.System.Logger.Level;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;

/** What went wrong in recording itself. The first is printed, for whoever watches the run; the run's journal has them. */
public final class Problems implements Consumer<String> {

    /** A disk that is full gives one problem an event; the journal need not hold each. */
    private static final int MAX_IN_JOURNAL = 50;

    private final AtomicInteger count = new AtomicInteger();
    private final RunJournal journal;

    /** Plain: two threads at once may both warn. */
    private boolean hasWarned;

    Problems(RunJournal journal) {
        this.journal = journal;
    }

    /** In one sentence that says what was tried. */
    public void add(String problem) {
        int number = count.incrementAndGet();
        if (!hasWarned)
            hasWarned = warn("Verbale met a problem and the tests go on; more of them are only counted. " + problem);
        if (number <= MAX_IN_JOURNAL) journal.problem(problem);
    }

    @Override
    public void accept(String problem) {
        add(problem);
    }

    /** @return whether there was stack for it: the JDK loads its logging for it, and would be left without */
    public static boolean warn(String text) {
        try {
            StackSpace.ensureForFirstCall();
        } catch (StackOverflowError full) {
            return false;
        }
        try {
            System.getLogger("dev.verbale").log(Level.WARNING, text);
        } catch (RuntimeException | Error brokenLogging) {
            // a warning that cannot be given must not harm the test either
        }
        return true;
    }
}
