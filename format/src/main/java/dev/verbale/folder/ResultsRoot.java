package dev.verbale.folder;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.stream.Stream;

/**
 * The folder that holds runs, such as {@code target/verbale}.
 *
 * @param path the folder itself; need not be there yet
 * @since 0.2.0
 */
public record ResultsRoot(Path path) {

    private static final int TRIES = 100;

    /** Where runs go when nobody says otherwise, below the folder that the tests run in. */
    public static final String DEFAULT = "target/verbale";

    /**
     * Makes a folder of its own for a run that starts at {@code start}: two runs never share one by chance.
     *
     * @throws IOException where it cannot be made
     */
    public RunFolder createRun(Instant start, RandomGenerator random) throws IOException {
        Files.createDirectories(path);
        for (int tried = 1; ; tried++) {
            Path folder = path.resolve(RunName.of(start, random));
            try {
                return new RunFolder(Files.createDirectory(folder));
            } catch (FileAlreadyExistsException taken) {
                if (tried == TRIES) throw taken;
            }
        }
    }

    /** The folder of the run with this name, there or not. */
    public RunFolder run(String name) {
        return new RunFolder(path.resolve(name));
    }

    /**
     * The runs in here, oldest first, which is the plain text order of their names. Other folders are passed over.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public List<RunFolder> runs() throws IOException {
        if (!Files.isDirectory(path)) return List.of();
        try (Stream<Path> folders = Files.list(path)) {
            return folders.map(RunFolder::new)
                    .filter(RunFolder::exists)
                    .sorted(Comparator.comparing(RunFolder::name))
                    .toList();
        }
    }

    /**
     * The run whose name is the last in plain text order.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public Optional<RunFolder> newest() throws IOException {
        List<RunFolder> runs = runs();
        return runs.isEmpty() ? Optional.empty() : Optional.of(runs.get(runs.size() - 1));
    }
}
