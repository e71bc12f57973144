package dev.verbale.internal;

import dev.verbale.event.JournalOpened;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.RunName;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import dev.verbale.recorder.RecorderOptions;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.time.Instant;
import java.util.Optional;
import java.util.Random;

/** Finds or makes the run folder of this JVM and opens its journal in there. */
record RunOpening(RunFolder folder, JournalWriter journal) {

    private static final int MOST_WORKERS = 100_000;

    static RunOpening open(RecorderOptions options, MonotonicClock clock, String version) throws IOException {
        var root = new ResultsRoot(options.root());
        RunFolder folder = folder(options, root, clock.wallAtOrigin());
        Files.createDirectories(folder.journals());
        new RunDescription(JournalFormat.VERSION, folder.name(), clock.wallAtOrigin(), HostFacts.gather())
                .writeIfAbsent(folder.runFile());
        return new RunOpening(folder, journal(folder, clock.wallAtOrigin(), version));
    }

    private static RunFolder folder(RecorderOptions options, ResultsRoot root, Instant now) throws IOException {
        String named = options.run();
        if (named != null) return joined(root.run(named));
        Optional<BuildProcess> build = BuildProcess.ofThisFork();
        if (build.isEmpty()) return root.createRun(now, new Random());
        // The chance in the name is the build's own number here, so that every fork comes to the same name.
        return joined(root.run(
                RunName.of(build.get().started(), new Random(build.get().pid()))));
    }

    private static RunFolder joined(RunFolder folder) throws IOException {
        Files.createDirectories(folder.path());
        return folder;
    }

    /** Workers are numbered as they come; the file that could be created is the number that was free. */
    private static JournalWriter journal(RunFolder folder, Instant wall, String version) throws IOException {
        long pid = ProcessHandle.current().pid();
        for (int number = folder.journalFiles().size() + 1; ; number++) {
            String worker = "worker-" + number;
            try {
                return JournalWriter.open(
                        folder.journal(worker), new JournalOpened(JournalFormat.VERSION, worker, wall, pid, version));
            } catch (FileAlreadyExistsException taken) {
                if (number > MOST_WORKERS) throw taken;
            }
        }
    }
}
