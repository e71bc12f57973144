package dev.verbale.results;

import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import dev.verbale.json.TextFilter;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;

/** Writes run folders by hand, event by event, for tests that read them. */
public final class SampleRun {

    public static final Instant WALL = Instant.parse("2026-11-24T10:31:07Z");

    private final RunFolder folder;
    private JournalWriter journal;
    private int ids = 100;
    private boolean closed;

    private SampleRun(RunFolder folder) {
        this.folder = folder;
    }

    /** A run with its description and no journal yet. */
    public static SampleRun in(Path root, String name) throws IOException {
        var run = new SampleRun(new RunFolder(root.resolve(name)));
        Files.createDirectories(run.folder.journals());
        new RunDescription(JournalFormat.VERSION, name, WALL, Map.of("os", "Linux"))
                .writeIfAbsent(run.folder.runFile());
        return run;
    }

    public SampleRun worker(String name, Instant wall) throws IOException {
        return worker(name, "", wall);
    }

    /** One that tests a module of the build. */
    public SampleRun worker(String name, String module, Instant wall) throws IOException {
        closed = false;
        journal = JournalWriter.open(
                folder.journal(name),
                JournalOpened.of(JournalFormat.VERSION, name, wall)
                        .module(module)
                        .pid(7)
                        .verbale("1.0")
                        .libraries(List.of("org.junit.", "org.library."))
                        .build(),
                TextFilter.NONE);
        return this;
    }

    public SampleRun write(Event... events) throws IOException {
        if (journal == null) worker("worker-1", WALL);
        for (Event event : events) {
            journal.append(event);
            closed = event instanceof JournalEnded;
        }
        return this;
    }

    /** A test that took a millisecond. */
    public SampleRun test(String name, Outcome outcome, Failure failure) throws IOException {
        return test(name, outcome, failure, null);
    }

    /** @param beds what it says of itself; null for nothing */
    public SampleRun test(String name, Outcome outcome, Failure failure, String beds) throws IOException {
        int id = ids++;
        Event ended =
                TestEnded.of(id * 1_000L + 1_000, id, outcome).failure(failure).build();
        write(TestStarted.of(id * 1_000L, id, "sample." + name + "()", name)
                .className("sample.T")
                .methodName(name)
                .thread("main")
                .build());
        if (beds != null) write(new DataNamed(id * 1_000L + 1, id, "beds", beds));
        return write(ended);
    }

    public static Failure failure(String type, String message, String... frames) {
        String stack = type + ": " + message + "\n\tat org.junit.Assert.fail(Assert.java:1)\n"
                + String.join(
                        "",
                        List.of(frames).stream().map(f -> "\tat " + f + "\n").toList());
        return Failure.of(type, stack).message(message).build();
    }

    public Path path() {
        return folder.path();
    }

    /** With the last word of its journal. */
    public Run read() throws IOException {
        if (!closed && journal != null) write(new JournalEnded(0, 0, Map.of(), 0));
        return readOpen();
    }

    /** As it is, while its JVM runs or after it was killed. */
    public Run readOpen() throws IOException {
        return RunReader.read(folder.path());
    }
}
