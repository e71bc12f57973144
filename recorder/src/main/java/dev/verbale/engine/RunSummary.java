package dev.verbale.engine;

import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.Missing;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.lifecycle.Totals;
import dev.verbale.engine.lifecycle.UnrecordedTests;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;

/** Says what a run came to, in a line for whoever watches. */
final class RunSummary {

    private static final boolean IN_BUILD = System.getProperty("org.gradle.test.worker") != null
            || isBuildTool(System.getProperty("sun.java.command", ""));

    private final Guard guard;
    private final RunJournal journal;
    private final Path folder;
    private final Totals totals;
    private final UnrecordedTests unrecorded;
    private final boolean isWanted;
    private final AtomicInteger printed = new AtomicInteger();

    RunSummary(
            Guard guard, RunJournal journal, Path folder, Totals totals, UnrecordedTests unrecorded, boolean isWanted) {
        this.guard = guard;
        this.journal = journal;
        this.folder = folder;
        this.totals = totals;
        this.unrecorded = unrecorded;
        this.isWanted = isWanted;
    }

    private static boolean isBuildTool(String command) {
        return command.contains("surefire") || command.contains("plexus.classworlds");
    }

    /**
     * Where a build tool listens to the JVM, what is printed at its very end is lost, so that it is printed when the framework
     * is done. Everywhere else once, at the end: there may be one session after another.
     */
    void sessionEnded() {
        if (IN_BUILD) print(false);
    }

    /** At the end of all, where there is news since it was printed last. */
    void print() {
        print(true);
    }

    private void print(boolean isOver) {
        guard.run(Task.TOTALS, context -> {
            if (isOver) unrecorded.end();
            printNow(isOver);
        });
    }

    private void printNow(boolean isOver) {
        boolean isNews = printed.getAndSet(totals.ended()) != totals.ended();
        if (!isWanted || (!isNews && (totals.ended() > 0 || unrecorded.framework() == null))) return;
        Map<String, Long> missing = journal.missing();
        System.out.println("Verbale: " + totals.sentence(isOver) + unrecordedTests() + ". Recorded in " + shown(folder)
                + (missing.isEmpty()
                        ? ""
                        : ". The run is incomplete: " + Missing.inWords(missing) + " could not be recorded"));
    }

    private String unrecordedTests() {
        String framework = unrecorded.framework();
        return framework == null
                ? ""
                : ". Tests of " + framework
                        + " ran and were not recorded: its adapter is not on the class path, or not registered";
    }

    private static String shown(Path folder) {
        Path current = Path.of("").toAbsolutePath();
        Path there = folder.toAbsolutePath().normalize();
        return String.valueOf(there.startsWith(current) ? current.relativize(there) : there);
    }
}
