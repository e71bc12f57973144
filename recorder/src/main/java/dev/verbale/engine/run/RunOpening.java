package dev.verbale.engine.run;

import dev.verbale.RecorderOptions;
import dev.verbale.engine.journal.MonotonicClock;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.settings.CoreSettings;
import dev.verbale.event.JournalOpened;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.RunName;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import dev.verbale.secrets.Redactor;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/**
 * Finds or makes the run folder of this JVM and opens its journal in there.
 *
 * @param again does it once more, where somebody deleted the folder
 */
public record RunOpening(RunFolder folder, JournalWriter journal, RunJournal.Reopening again) {

    private static final int MAX_WORKERS = 100_000;
    private static final int LONGEST_MODULE = 200;

    public static RunOpening open(
            RecorderOptions options, MonotonicClock clock, List<String> libraries, Redactor redactor)
            throws IOException {
        Optional<BuildProcess> build = BuildProcess.ofThisFork();
        String module = module(options);
        var root = new ResultsRoot(root(options, build));
        RunFolder folder = folder(options, build, root, clock.wallAtOrigin());
        var description = new RunDescription(
                JournalFormat.VERSION, folder.name(), clock.wallAtOrigin(), redacted(RunFacts.gather(), redactor));
        RunJournal.Reopening opening = () -> {
            Files.createDirectories(folder.journals());
            description.writeIfAbsent(folder.runFile());
            return journal(folder, clock.wallAtOrigin(), module, libraries, redactor);
        };
        return new RunOpening(folder, opening.open(), opening);
    }

    private static RunFolder folder(
            RecorderOptions options, Optional<BuildProcess> build, ResultsRoot root, Instant now) throws IOException {
        String named = options.run() == null ? BuildSettings.run() : options.run();
        if (named != null) return joined(root.run(named));
        if (build.isEmpty()) return root.createRun(now, new Random());
        // The random part of the name is the build's own number here, so that every fork comes to the same name.
        return joined(root.run(
                RunName.of(build.get().started(), new Random(build.get().pid()))));
    }

    /** All modules of a build share the folder of the build's own root, where nobody said another. */
    private static Path root(RecorderOptions options, Optional<BuildProcess> build) {
        if (options.root() != null) return options.root();
        Path handedDown = BuildSettings.root();
        if (handedDown != null) return handedDown;
        Optional<Path> ofBuild = build.isPresent() ? build.get().root() : Optional.empty();
        return ofBuild.isPresent() ? ofBuild.get().resolve(ResultsRoot.DEFAULT) : options.rootOrDefault();
    }

    private static String module(RecorderOptions options) {
        String module = options.settings().getOrDefault(CoreSettings.MODULE.key(), ".");
        return module.equals(".") ? "" : module.substring(0, Math.min(LONGEST_MODULE, module.length()));
    }

    private static Map<String, String> redacted(Map<String, String> facts, Redactor redactor) {
        Map<String, String> masked = new LinkedHashMap<>();
        for (var fact : facts.entrySet()) masked.put(fact.getKey(), redactor.redacted(fact.getValue()));
        return masked;
    }

    private static RunFolder joined(RunFolder folder) throws IOException {
        Files.createDirectories(folder.path());
        return folder;
    }

    /** Workers are numbered as they come; the file that could be created is the number that was free. */
    private static JournalWriter journal(
            RunFolder folder, Instant wall, String module, List<String> libraries, Redactor redactor)
            throws IOException {
        long pid = ownPid();
        for (int number = 1; ; number++) {
            String worker = "worker-" + number;
            try {
                return JournalWriter.open(
                        folder.journal(worker),
                        JournalOpened.of(JournalFormat.VERSION, worker, wall)
                                .module(module)
                                .pid(pid)
                                .verbale(Version.text())
                                .libraries(libraries)
                                .build(),
                        redactor::redacted);
            } catch (FileAlreadyExistsException taken) {
                if (number > MAX_WORKERS) throw taken;
            }
        }
    }

    /** Linux has it as the name of a folder; the JDK's way to it makes a pool of threads, for what nobody asked here. */
    private static long ownPid() {
        try {
            return Long.parseLong(
                    String.valueOf(Path.of("/proc/self").toRealPath().getFileName()));
        } catch (IOException | NumberFormatException elsewhere) {
            return ProcessHandle.current().pid();
        }
    }
}
