package dev.verbale.engine;

import dev.verbale.border.LostCalls;
import dev.verbale.engine.attachment.Attachments;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.scope.Scopes;
import java.io.IOException;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/** What is done when the JVM ends. Whatever is still recorded after this is kept too, only behind the journal's last line. */
final class RunEnd implements Runnable {

    /** The end of a JVM waits no longer for us, whatever a disk or a pipe does. */
    private static final long LONGEST_END_MILLIS = TimeUnit.SECONDS.toMillis(10);

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Attachments attachments;
    private final RunSummary summary;

    private final BooleanSupplier isCutOff;

    /** @param isCutOff whether a framework is still at work, as where a test ends the JVM */
    RunEnd(
            Guard guard,
            RunJournal journal,
            Scopes scopes,
            Attachments attachments,
            RunSummary summary,
            BooleanSupplier isCutOff) {
        this.guard = guard;
        this.isCutOff = isCutOff;
        this.journal = journal;
        this.scopes = scopes;
        this.attachments = attachments;
        this.summary = summary;
        countLost(); // loads what the end needs: the class loader may be closed by then
    }

    /**
     * On a thread of its own, and not waited for without end: a full pipe, a dead network drive and a lock that somebody
     * else holds for ever must not keep the JVM alive.
     */
    void end() {
        var closing = new Thread(this, "verbale-end");
        closing.setDaemon(true);
        closing.start();
        try {
            closing.join(LONGEST_END_MILLIS);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void run() {
        finish(attachments::finish); // not within the guard: both record
        finish(scopes.run().state::endOpen);
        summary.print();
        guard.run(Task.ENDING, context -> {
            countLost();
            guard.reportLost();
            try {
                if (isCutOff
                        .getAsBoolean()) // whoever reads a journal without an end takes it for one that lacks something
                journal.problems()
                            .add(
                                    "the JVM was ended while tests ran, as by System.exit: what had not run until then is not known");
                else journal.end(guard.overhead());
            } finally {
                sync();
            }
        });
    }

    /** The rest of the end does not depend on it. */
    private void finish(Runnable part) {
        try {
            part.run();
        } catch (Throwable broken) {
            journal.problems().add("ending the run: " + broken.getClass().getName());
        }
    }

    private void countLost() {
        guard.lost += LostCalls.count;
        LostCalls.count = 0;
    }

    private void sync() {
        try {
            journal.sync();
        } catch (IOException unsynced) {
            // the operating system has it, and brings it to the disk in its own time
        }
    }
}
