package dev.verbale.internal;

import dev.verbale.event.FactStated;
import dev.verbale.event.Outcome;
import dev.verbale.event.TestStarted;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/** Says what a run came to, once in a line for whoever watches, and once in the journal. */
final class LastWord {

    /** The end of a JVM waits no longer for us, whatever a disk or a pipe does. */
    private static final long LONGEST_END_MILLIS = TimeUnit.SECONDS.toMillis(10);

    private static final boolean IN_BUILD = System.getProperty("org.gradle.test.worker") != null
            || System.getProperty("sun.java.command", "").matches(".*(surefire|plexus\\.classworlds).*");

    private final FileRecorder recorder;
    private final boolean isWanted;
    private final Totals totals = new Totals();
    private final AtomicInteger said = new AtomicInteger();
    private final UnheardTests unheard = new UnheardTests();

    LastWord(FileRecorder recorder, boolean isWanted) {
        this.recorder = recorder;
        this.isWanted = isWanted;
    }

    void ended(ScopeNode test, Outcome outcome) {
        totals.add(test.start instanceof TestStarted start ? start.key() : String.valueOf(test.id()), outcome);
    }

    /** Something is recorded that belongs to no test. Where there is none so far, it may come from one that nobody told of. */
    void outsideTests() {
        if (totals.all() > 0) return;
        unheard.look()
                .ifPresent(framework -> recorder.minutes.append(new FactStated(
                        recorder.minutes.clock.micros(),
                        FactStated.UNHEARD,
                        "tests of " + framework + ", for its adapter is not on the class path")));
    }

    /**
     * Where a build tool listens to the JVM, what is printed at its very end is lost, so that it is said when the framework is
     * done. Everywhere else once, at the end: there may be one session after another.
     */
    void sessionEnded() {
        if (IN_BUILD) recorder.guard.run(Task.TOTALS, seat -> say());
    }

    private void say() {
        int all = totals.all();
        boolean isNews = said.getAndSet(totals.ended()) != totals.ended();
        if (!isWanted || (!isNews && (all > 0 || unheard.framework() == null))) return;
        Map<String, Long> missing = recorder.minutes.missing();
        System.out.println("Verbale: " + totals.sentence() + heard() + ". Minutes in " + shown(recorder.folder())
                + (missing.isEmpty()
                        ? ""
                        : ". The run is incomplete: " + Missing.inWords(missing) + " could not be recorded"));
    }

    /**
     * On a thread of its own, and not waited for without end: a full pipe, a dead network drive and a lock that somebody
     * else holds for ever must not keep the JVM alive.
     */
    void end() {
        var ending = new Thread(this::endNow, "verbale-end");
        ending.setDaemon(true);
        ending.start();
        try {
            ending.join(LONGEST_END_MILLIS);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    private void endNow() {
        recorder.guard.foreign.run(recorder.papers::finish); // not within the guard: both record
        recorder.guard.foreign.run(recorder::endExchangesOfTheRun);
        recorder.guard.run(Task.TOTALS, seat -> say());
        recorder.guard.run(Task.ENDING, seat -> {
            recorder.guard.lost += Recorders.lost;
            Recorders.lost = 0;
            recorder.guard.tellWhatWasLost();
            recorder.minutes.end(recorder.guard.cost());
        });
        recorder.guard.run(Task.ENDING, seat -> {
            try {
                recorder.minutes.sync();
            } catch (IOException unsynced) {
                // the operating system has it, and brings it to the disk in its own time
            }
        });
    }

    private String heard() {
        String framework = unheard.framework();
        return totals.all() > 0 || framework == null
                ? ""
                : ". Tests of " + framework + " ran unheard, for its adapter is not on the class path";
    }

    private static String shown(Path folder) {
        Path here = Path.of("").toAbsolutePath();
        Path there = folder.toAbsolutePath().normalize();
        return String.valueOf(there.startsWith(here) ? here.relativize(there) : there);
    }
}
