package dev.verbale.report;

import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.Run;
import dev.verbale.results.RunBeginning;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.TestResult;
import dev.verbale.results.TestResult.Course;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * Writes what the page says of each test as soon as it was read, and keeps of a test only what the rest of the page is made of: all of
 * those that need attention, and of what passed after them; data and what checks found, of the others.
 */
final class DraftedTests implements TestKeeper {

    /** Attempts that passed after others are kept whole, to be told apart from these: so many, or memory would have no end. */
    private static final int MAX_LATER = 500;

    private final Path folder;
    private final TestDrafts drafts;
    private final PageContent content;
    private final SharedTexts texts;
    /** Whether the page will be replaced while it is read. */
    private final boolean isGoing;
    /** By an object that is a test's own, and stays the same when its attempt is numbered. */
    private final IdentityHashMap<Course, Draft> byCourse = new IdentityHashMap<>();

    private final Set<String> failed = ConcurrentHashMap.newKeySet();
    private final AtomicInteger laterAttempts = new AtomicInteger();

    private final ThreadLocal<JsonBytes> bytes = ThreadLocal.withInitial(JsonBytes::new);

    private @Nullable RunBeginning run;
    private @Nullable AttachmentCopier attachments;

    /** @param folder of the page */
    DraftedTests(Path folder, TestDrafts drafts, PageOptions options) {
        this.folder = folder;
        this.drafts = drafts;
        this.content = options.content();
        this.texts = new SharedTexts(options);
        this.isGoing = options.progress() != null;
    }

    /** Of a run that was read already: as it is when this keeps its tests. */
    Run of(Run whole) throws IOException {
        begins(new RunBeginning(whole.name(), whole.folder(), whole.started(), whole.ownFrames()));
        try {
            List<TestResult> kept =
                    whole.tests().parallelStream().map(this::keep).toList();
            return whole.withTests(kept);
        } catch (UncheckedIOException unwritten) {
            throw unwritten.getCause();
        }
    }

    @Override
    public void begins(RunBeginning beginning) {
        run = beginning;
        attachments = new AttachmentCopier(beginning.folder(), folder, "");
    }

    @Override
    public TestResult keep(TestResult test) {
        Row row = Row.of(test, !content.hasDetails(test.outcome()), Draft.NONE);
        Map<Integer, List<Entry.CheckEntry>> checks = row.isLeftOut() ? Map.of() : ExchangeChecks.of(test);
        Course was = test.course();
        var course = new Course(was.started(), was.duration(), was.worker(), was.thread());
        Draft draft;
        try {
            draft = draft(row, checks);
        } catch (IOException unwritten) {
            throw new UncheckedIOException(unwritten);
        }
        synchronized (byCourse) {
            byCourse.put(course, draft);
        }
        boolean needsAttention = test.outcome().needsAttention();
        if (needsAttention) failed.add(test.key());
        boolean isKept =
                needsAttention || (failed.contains(test.key()) && laterAttempts.incrementAndGet() <= MAX_LATER);
        List<Entry> entries = isKept ? test.entries() : few(test.entries(), checks);
        return new TestResult(test.identity(), test.attempt(), test.end(), course, entries);
    }

    private Draft draft(Row row, Map<Integer, List<Entry.CheckEntry>> checks) throws IOException {
        byte[] test = bytes.get()
                .of(json -> writer().write(json, row, checks, isGoing ? TestWriter.With.ID : TestWriter.With.NOTHING));
        var lines = new ExchangeRows(beginning().started());
        lines.add(row.entries(), checks);
        return drafts.add(test, lines.bytes(), lines.count());
    }

    TestWriter writer() {
        if (attachments == null) throw new IllegalStateException("no run has begun");
        return new TestWriter(beginning().started(), beginning().ownFrames(), attachments, content, texts);
    }

    /** What the page's texts share. */
    SharedTexts texts() {
        return texts;
    }

    private RunBeginning beginning() {
        if (run == null) throw new IllegalStateException("no run has begun");
        return run;
    }

    /** The tests in their order, then the broken containers. */
    List<Row> rows(Run kept) throws IOException {
        List<Row> rows = new ArrayList<>(kept.tests().size());
        for (TestResult test : kept.tests())
            rows.add(Row.of(
                    test, !content.hasDetails(test.outcome()), byCourse.getOrDefault(test.course(), Draft.NONE)));
        for (ContainerResult container : kept.brokenContainers())
            rows.add(Row.of(container, draft(Row.of(container, Draft.NONE), Map.of())));
        drafts.written();
        byCourse.clear();
        return rows;
    }

    private static List<Entry> few(List<Entry> entries, Map<Integer, List<Entry.CheckEntry>> checks) {
        List<Entry> few = new ArrayList<>();
        for (Entry entry : entries) if (entry instanceof Entry.DataEntry) few.add(entry);
        if (!few.isEmpty()) few.addAll(CheckedValues.of(entries, checks));
        Entry failing = failing(entries);
        if (failing != null) few.add(failing);
        return few;
    }

    /** The first check that failed; null for none. */
    static Entry.@Nullable CheckEntry failing(List<Entry> entries) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.CheckEntry check && !check.outcome().equals(Outcome.PASSED)) return check;
            Entry.CheckEntry inside = failing(Entry.inside(entry));
            if (inside != null) return inside;
        }
        return null;
    }
}
