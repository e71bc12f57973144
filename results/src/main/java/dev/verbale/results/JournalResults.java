package dev.verbale.results;

import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalReader;
import dev.verbale.results.JournalNodes.AtLines;
import dev.verbale.results.JournalNodes.AtTheEnd;
import dev.verbale.results.JournalNodes.HandingOn;
import dev.verbale.results.JournalNodes.LateLine;
import dev.verbale.results.JournalNodes.WhenEnded;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.Function;

/** What one journal holds: tests, containers, and what belongs to neither. */
final class JournalResults {

    private final RunFolder folder;
    private final Path file;
    private final JournalProblems problems;
    private final JournalNodes nodes;

    private final String shard;
    private final List<Problem> met = new ArrayList<>();
    private final RepeatedTexts texts = new RepeatedTexts();

    private JournalResults(RunFolder folder, String shard, Path file, Function<JournalResults, HandingOn> handingOn) {
        this.folder = folder;
        this.shard = shard;
        this.file = file;
        String prefix = shard.isEmpty() ? "" : "shards/" + shard + "/";
        this.problems = new JournalProblems(prefix + folder.nameInJournal(file), met);
        this.nodes = new JournalNodes(folder, this.problems, handingOn.apply(this));
    }

    /** Who takes a test as soon as it is whole. */
    @FunctionalInterface
    interface TestsOneByOne {
        /** {@code number} counts the tests of this journal, from 0. */
        void test(int number, TestResult test);
    }

    /**
     * Of {@code file}. What is read before something goes wrong stays.
     *
     * @param shard the name of the run that it was recorded in, where others were joined with that; empty otherwise
     */
    static JournalResults read(RunFolder folder, String shard, Path file) {
        var results = new JournalResults(folder, shard, file, itself -> new AtTheEnd());
        results.read();
        results.takeRest(results::has);
        results.make();
        return results;
    }

    /** What {@code file} holds, with what {@code keeper} keeps of each test. */
    static JournalResults read(RunFolder folder, String shard, Path file, TestKeeper keeper) {
        try {
            return kept(
                    new JournalResults(
                            folder, shard, file, itself -> new WhenEnded(itself.handing(itself.keeping(keeper)))),
                    keeper);
        } catch (LateLine late) {
            TestLines lines = TestLines.of(file);
            return kept(
                    new JournalResults(
                            folder,
                            shard,
                            file,
                            itself -> new AtLines(
                                    lines.order(), lines.lastLines(), itself.handing(itself.keeping(keeper)))),
                    keeper);
        }
    }

    private static JournalResults kept(JournalResults results, TestKeeper keeper) {
        results.read();
        results.takeRest(results.keeping(keeper));
        results.make();
        return results;
    }

    private BiConsumer<Integer, OpenNode> handing(TestsOneByOne taking) {
        return (number, node) -> taking.test(number, test(node, name()));
    }

    private TestsOneByOne keeping(TestKeeper keeper) {
        return (number, test) -> has(number, Objects.requireNonNull(keeper.keep(test), "what is kept of a test"));
    }

    private void has(int number, TestResult test) {
        byNumber.put(number, test);
    }

    /** Here, where several journals are read side by side, and not when all are asked. */
    private void takeRest(TestsOneByOne taking) {
        BiConsumer<Integer, OpenNode> handing = handing(taking);
        while (!nodes.tests.isEmpty()) {
            Map.Entry<Integer, OpenNode> next = nodes.tests.pollFirstEntry(); // lets go of each
            handing.accept(next.getKey(), next.getValue());
        }
    }

    private final NavigableMap<Integer, TestResult> byNumber = new TreeMap<>();
    private List<TestResult> tests = List.of();

    private void make() {
        tests = List.copyOf(byNumber.values());
        byNumber.clear();
    }

    /** What went wrong, in the order of the lines. */
    List<Problem> problems() {
        return met;
    }

    private void read() {
        try {
            JournalReader.read(file, nodes);
        } catch (FileSystemException unusable) {
            String why = unusable.getReason();
            problems.add(0, (why == null ? "cannot be opened (" + unusable + ")" : why) + ": it is left out");
        } catch (IOException broken) {
            problems.add(0, "cannot be read further (" + broken + "): what was read until here is there");
        }
        for (OpenNode test : nodes.unfinishedTests()) addVideos(test);
        nodes.end();
        if (missing() > 0)
            problems.add(
                    0,
                    missing() + (missing() == 1 ? " event" : " events") + " could not be recorded: "
                            + nodes.missingByKind);
        problems.end();
    }

    private long missing() {
        long all = 0;
        for (long count : nodes.missingByKind.values()) all += Math.max(0, count);
        return all;
    }

    Instant first() {
        return nodes.wall();
    }

    Instant last() {
        return OpenNode.moment(nodes.wall(), nodes.lastAt);
    }

    Map<String, String> facts() {
        return nodes.facts;
    }

    String name() {
        return workerName(shard, file);
    }

    static String workerName(String shard, Path file) {
        String name = file.getFileName().toString().replace(JournalFormat.FILE_SUFFIX, "");
        return shard.isEmpty() ? name : shard + "/" + name;
    }

    Worker worker() {
        return new Worker(
                name(),
                pid(),
                module(),
                nodes.wall(),
                nodes.ended,
                missing(),
                nodes.missingByKind,
                nodes.overhead,
                nodes.opened == null ? List.of() : nodes.opened.libraries());
    }

    private String module() {
        return nodes.opened == null ? "" : nodes.opened.module();
    }

    private List<String> inModule(List<String> keys) {
        return keys.isEmpty()
                ? keys
                : keys.stream().map(key -> ModuleKey.of(module(), key)).toList();
    }

    private long pid() {
        return nodes.opened == null ? 0 : nodes.opened.pid();
    }

    List<TestResult> tests() {
        return tests;
    }

    private TestResult test(OpenNode node, String worker) {
        var start = (TestStarted) node.started();
        return new TestResult(
                new TestResult.Identity(
                        ModuleKey.of(module(), start.key()),
                        module(),
                        start.name(),
                        path(node),
                        texts.orNull(start.className()),
                        texts.orNull(start.methodName()),
                        start.tags(),
                        node.about,
                        start.source()),
                TestResult.Attempt.ONLY,
                new TestResult.End(node.outcome, node.reason, node.failure, inModule(node.blockedBy)),
                new TestResult.Course(nodes.moment(start), node.duration(), worker, texts.of(start.thread())),
                node.entries(this::inner, nodes.wall()));
    }

    /** What was recorded until the JVM was killed; nobody came to make a video of it. */
    private void addVideos(OpenNode test) {
        List<Path> videos;
        try {
            videos = folder.spools(pid(), ((TestStarted) test.started()).id());
        } catch (IOException unreadable) {
            problems.add(0, "the folder of unfinished videos cannot be read: " + unreadable);
            return;
        }
        for (Path video : videos)
            test.add(new Entry.AttachmentEntry(
                    last(),
                    "video, as far as it came",
                    AttachmentKind.VIDEO,
                    new StoredFile(folder.nameInJournal(video), "video/x-matroska", size(video), null),
                    video,
                    null));
    }

    private static long size(Path file) {
        try {
            return Files.size(file);
        } catch (IOException gone) {
            return 0; // as whoever opens it will see
        }
    }

    List<ContainerResult> containers() {
        String worker = name();
        return nodes.containers.stream().map(node -> container(node, worker)).toList();
    }

    private ContainerResult container(OpenNode node, String worker) {
        var start = (ContainerStarted) node.started();
        return new ContainerResult(
                ModuleKey.of(module(), start.key()),
                start.name(),
                path(node),
                start.className(),
                // A container has no end only because the JVM had none; its open tests say so already.
                node.outcome.equals(Outcome.UNFINISHED) ? Outcome.PASSED : node.outcome,
                node.reason,
                node.failure,
                node.notRun,
                nodes.moment(start),
                node.duration(),
                worker,
                node.entries(this::inner, nodes.wall()));
    }

    List<Entry> entries() {
        return nodes.run.entries(this::inner, nodes.wall());
    }

    private Entry inner(OpenNode node) {
        List<Entry> entries = node.entries(this::inner, nodes.wall());
        if (node.started() instanceof UnknownEvent start)
            return new Entry.UnknownEntry(nodes.moment(start), start.word(), start.json(), entries);
        var start = (StepStarted) node.started();
        return new Entry.StepEntry(
                nodes.moment(start),
                start.kind(),
                texts.of(start.name()),
                node.outcome,
                node.duration(),
                node.budget,
                node.reason,
                node.failure,
                texts.orNull(start.thread()),
                start.argument(),
                entries);
    }

    private static List<String> path(OpenNode node) {
        var names = new ArrayDeque<String>();
        int hops = 0;
        for (OpenNode outer = node.outer; outer != null && hops++ < OpenNode.DEEPEST; outer = outer.outer)
            if (outer.start() instanceof ContainerStarted container && container.methodName() == null)
                names.addFirst(container.name()); // a method's name is in the names of its tests
        return List.copyOf(names);
    }
}
