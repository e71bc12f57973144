package dev.verbale.results;

import dev.verbale.event.Outcome;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Reads a run folder, finished or not. What cannot be read is a {@link Problem} of the run, and everything else is there:
 * only a folder that holds no run at all is refused.
 *
 * @since 0.2.0
 */
public final class RunReader {

    private final RunFolder folder;
    private final List<Problem> problems = new ArrayList<>();

    private RunReader(RunFolder folder) {
        this.folder = folder;
    }

    /**
     * Reads the run in {@code path}, which is either its folder or the results root, and then the newest run in there.
     *
     * @throws ResultsFormatException where there is no run; it says what there is instead
     * @throws IOException where something cannot be read
     */
    public static Run read(Path path) throws IOException {
        return new RunReader(find(path)).read();
    }

    /**
     * The folder that {@link #read} reads for {@code path}.
     *
     * @throws ResultsFormatException where there is no run
     * @throws IOException where a folder cannot be listed
     */
    public static RunFolder find(Path path) throws IOException {
        var folder = new RunFolder(path);
        if (folder.exists()) return folder;
        if (!Files.exists(path))
            throw new ResultsFormatException(
                    path,
                    "there is no such folder",
                    "Runs are recorded in " + ResultsRoot.DEFAULT
                            + " of a project, in a Maven build in that of all its modules",
                    "Run the tests with Verbale on their class path, or name the folder of another run");
        if (!Files.isDirectory(path))
            throw new ResultsFormatException(
                    path, "this is a file", "A run is a folder with a run.json in it", "Name the folder");
        var newest = new ResultsRoot(path).newest();
        if (newest.isEmpty())
            newest = new ResultsRoot(path.resolve(ResultsRoot.DEFAULT)).newest(); // a project's folder
        if (newest.isPresent()) return newest.get();
        if (!folder.journalFiles().isEmpty()) return folder; // killed before run.json, or somebody lost it
        throw new ResultsFormatException(
                path,
                "there is no run in this folder",
                isEmpty(path) ? "It is empty" : "It has no run.json, and no folder in it has one",
                "Name a run's own folder, or the folder that holds runs, such as " + ResultsRoot.DEFAULT);
    }

    private static boolean isEmpty(Path path) throws IOException {
        try (var files = Files.list(path)) {
            return files.findAny().isEmpty();
        }
    }

    private Run read() throws IOException {
        Map<String, String> facts = new LinkedHashMap<>();
        Instant described = description(facts);
        List<JournalResults> journals = new ArrayList<>();
        for (Path file : journalFiles()) {
            journals.add(JournalResults.read(folder, file, problems));
        }
        if (journals.isEmpty())
            problem("journals", "there is no journal: nothing was recorded, or its files are missing");
        for (JournalResults journal : journals) facts.putAll(journal.facts());

        Instant started = journals.stream()
                .map(JournalResults::first)
                .min(Comparator.naturalOrder())
                .orElse(described);
        Instant ended = journals.stream()
                .map(JournalResults::last)
                .max(Comparator.naturalOrder())
                .orElse(started);
        return new Run(
                folder.name(),
                folder.path(),
                started,
                Duration.between(started, ended),
                facts,
                journals.stream().map(JournalResults::worker).toList(),
                numbered(inOrder(journals, JournalResults::tests, Comparator.comparing(TestResult::started))),
                inOrder(journals, JournalResults::containers, Comparator.comparing(ContainerResult::started)),
                inOrder(journals, JournalResults::entries, Comparator.comparing(Entry::at)),
                problems);
    }

    private List<Path> journalFiles() {
        try {
            if (Files.isSymbolicLink(folder.journals())) problem("journals", "is a link, which is not followed");
            return folder.journalFiles();
        } catch (IOException unreadable) {
            problem("journals", "cannot be listed (" + unreadable + ")");
            return List.of();
        }
    }

    private Instant description(Map<String, String> facts) {
        try {
            RunDescription description = RunDescription.read(folder.runFile());
            facts.putAll(description.facts());
            if (description.format() > JournalFormat.VERSION)
                problem(
                        "run.json",
                        "the run has format " + description.format() + " and this reader knows " + JournalFormat.VERSION
                                + ": what is new in it is shown as it is. Read it with a newer Verbale");
            return description.started();
        } catch (IOException unreadable) {
            problem("run.json", "cannot be read (" + unreadable.getMessage() + "): what it says is left out");
            return Instant.EPOCH;
        }
    }

    private void problem(String file, String what) {
        problems.add(new Problem(file, 0, what));
    }

    /** Journals are read in the order of their names, so what started in the same microsecond has an order too. */
    private static <T> List<T> inOrder(
            List<JournalResults> journals, Function<JournalResults, List<T>> part, Comparator<T> order) {
        List<T> all = new ArrayList<>();
        for (JournalResults journal : journals) all.addAll(part.apply(journal));
        all.sort(order);
        return all;
    }

    /**
     * Numbers the attempts of what ran several times. The same key in one run is the same test, whatever its attempts
     * came to and whichever JVM made them: the last one counts.
     */
    private static List<TestResult> numbered(List<TestResult> tests) {
        Map<String, Integer> left = new HashMap<>();
        for (TestResult test : tests) left.merge(test.key(), 1, Integer::sum);
        Map<String, Integer> attempts = new HashMap<>();
        Set<String> failedBefore = new HashSet<>();
        List<TestResult> numbered = new ArrayList<>(tests.size());
        for (TestResult test : tests) {
            boolean again = left.merge(test.key(), -1, Integer::sum) > 0;
            int number = attempts.merge(test.key(), 1, Integer::sum);
            boolean recovered =
                    failedBefore.contains(test.key()) && test.outcome().equals(Outcome.PASSED);
            numbered.add(number == 1 && !again ? test : test.as(new TestResult.Attempt(number, again, recovered)));
            if (test.outcome().needsAttention()) failedBefore.add(test.key());
        }
        return numbered;
    }
}
