package dev.verbale.results;

import dev.verbale.event.FactStated;
import dev.verbale.event.JournalOpened;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalReader;
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
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Reads a run folder, finished or not. What cannot be read is a {@link Problem} of the run, and everything else is there:
 * only a folder that holds no run at all is refused.
 *
 * @since 0.2.0
 */
public final class RunReader {

    private final RunFolder folder;
    private final List<Problem> problems = new ArrayList<>();
    private List<RunFolder> shards = List.of();

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
        return new RunReader(find(path)).readWith(null);
    }

    /**
     * Reads the same, and has of each test what {@code keeper} keeps of it: the heap need not hold what happened in all of them.
     * Journals in which lines belong to a test that has ended are read again for it.
     *
     * @throws ResultsFormatException where there is no run; it says what there is instead
     * @throws IOException where something cannot be read
     */
    public static Run read(Path path, TestKeeper keeper) throws IOException {
        return new RunReader(find(path)).readWith(Objects.requireNonNull(keeper, "keeper"));
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

    /** A journal, and the run that it was recorded in where others were joined with that. */
    private record Source(RunFolder folder, String shard, Path file) {}

    private Run readWith(@Nullable TestKeeper keeper) throws IOException {
        Map<String, String> facts = new LinkedHashMap<>();
        Instant described = description(facts);
        var joined = new JoinedFacts(facts);
        List<Source> sources = sources();
        if (keeper != null) keeper.begins(beginning(sources, described));
        // Side by side: they have nothing in common.
        List<JournalResults> journals = sources.parallelStream()
                .map(source -> keeper == null
                        ? JournalResults.read(source.folder(), source.shard(), source.file())
                        : JournalResults.read(source.folder(), source.shard(), source.file(), keeper))
                .toList();
        facts(facts, joined, sources, journals);
        return run(described, facts, journals, numbered(tests(journals, joined.machines())));
    }

    private RunBeginning beginning(List<Source> sources, Instant described) {
        Instant started = null;
        List<String> libraries = new ArrayList<>();
        for (Source source : sources) {
            JournalOpened opened = opened(source.file());
            Instant first = opened == null ? Instant.EPOCH : opened.wall();
            if (started == null || first.isBefore(started)) started = first;
            if (opened != null) libraries.addAll(opened.libraries());
        }
        return new RunBeginning(
                folder.name(), folder.path(), started == null ? described : started, new OwnFrames(libraries));
    }

    private static @Nullable JournalOpened opened(Path journal) {
        try {
            return JournalReader.opened(journal);
        } catch (IOException unreadable) {
            return null; // whoever reads it whole says so
        }
    }

    private List<Source> sources() {
        List<Source> sources = new ArrayList<>();
        for (Path file : journalFiles(folder)) sources.add(new Source(folder, "", file));
        shards = shards();
        for (RunFolder shard : shards)
            for (Path file : journalFiles(shard)) sources.add(new Source(shard, shard.name(), file));
        return sources;
    }

    private void facts(
            Map<String, String> facts, JoinedFacts joined, List<Source> sources, List<JournalResults> journals) {
        for (int i = 0; i < sources.size(); i++)
            if (sources.get(i).shard().isEmpty())
                facts.putAll(stated(journals.get(i).facts()));
        for (RunFolder shard : shards) {
            joined.add(shard, problems);
            for (int i = 0; i < sources.size(); i++)
                if (sources.get(i).shard().equals(shard.name()))
                    joined.add(stated(journals.get(i).facts()));
        }
        joined.end();
        for (JournalResults journal : journals) problems.addAll(journal.problems());
        if (journals.isEmpty())
            problem("journals", "there is no journal: nothing was recorded, or its files are missing");
    }

    /** That one JVM takes back what it missed takes nothing back of what another did. */
    private static Map<String, String> stated(Map<String, String> facts) {
        Map<String, String> stated = new LinkedHashMap<>(facts);
        stated.remove(FactStated.NOT_RECORDED, "");
        return stated;
    }

    private Run run(
            Instant described, Map<String, String> facts, List<JournalResults> journals, List<TestResult> tests) {
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
                tests,
                inOrder(journals, JournalResults::containers, Comparator.comparing(ContainerResult::started)),
                inOrder(journals, JournalResults::entries, Comparator.comparing(Entry::at)),
                problems);
    }

    /** Which tests ran on several. */
    private final class Machines {
        private final Map<String, String> machineOf = new HashMap<>();
        private final Set<String> several = new HashSet<>();

        private void ran(String key, String machine) {
            if (!machineOf.computeIfAbsent(key, none -> machine).equals(machine)) several.add(key);
        }

        private void say() {
            if (several.isEmpty()) return;
            problem(
                    "shards",
                    (several.size() == 1 ? "1 test" : several.size() + " tests")
                            + " ran on several machines: which attempt"
                            + " came last is told by the machines' own clocks, which nobody compared");
        }
    }

    private List<TestResult> tests(List<JournalResults> journals, int machines) {
        List<TestResult> tests = inOrder(journals, JournalResults::tests, Comparator.comparing(TestResult::started));
        if (machines < 2) return tests;
        var ran = new Machines();
        for (TestResult test : tests) ran.ran(test.key(), test.worker().replaceFirst("/.*", ""));
        ran.say();
        return tests;
    }

    private List<RunFolder> shards() {
        try {
            return folder.shards();
        } catch (IOException unreadable) {
            problem("shards", "cannot be listed (" + unreadable + ")");
            return List.of();
        }
    }

    private List<Path> journalFiles(RunFolder one) {
        try {
            if (Files.isSymbolicLink(one.journals())) problem("journals", "is a link, which is not followed");
            return one.journalFiles();
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

    private List<TestResult> numbered(List<TestResult> tests) {
        var attempts = new Attempts(tests);
        List<TestResult> numbered = attempts.numbered();
        List<String> unexplained = attempts.unexplained();
        if (!unexplained.isEmpty())
            problem(
                    "journals",
                    (unexplained.size() == 1 ? "1 test was" : unexplained.size() + " tests were")
                            + " recorded several times, and not because it was run again: the worse outcome counts. "
                            + unexplained.get(0));
        return numbered;
    }
}
