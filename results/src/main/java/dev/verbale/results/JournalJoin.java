package dev.verbale.results;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.PaperPromised;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalReader;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Joins the lines of one journal into tests, containers and what belongs to neither. */
final class JournalJoin implements JournalReader.Listener {

    /** Of one journal: a broken one may have one in each of a million lines. */
    private static final int MOST_PROBLEMS = 500;

    private final RunFolder folder;
    private final Path file;
    private final List<Problem> problems;

    private final Map<Integer, OpenNode> nodes = new HashMap<>();
    private final List<OpenNode> tests = new ArrayList<>();
    private final List<OpenNode> containers = new ArrayList<>();
    private final OpenNode run = new OpenNode(null, new FactStated(0, "", ""));
    private final Map<String, String> facts = new LinkedHashMap<>();

    private @Nullable JournalOpened opened;
    private long lastAt;
    private boolean ended;
    private int problemsHere;
    private Map<String, Long> missingByKind = Map.of();
    private Duration cost = Duration.ZERO;
    private final Map<Integer, OpenNode> promises = new HashMap<>();
    private final Map<Integer, Failure> failures = new HashMap<>();
    private final Map<Integer, Described> described = new HashMap<>();
    private final List<OpenNode> steps = new ArrayList<>();

    /** What was said of a test before it began. */
    private record Described(About about, int line) {}

    JournalJoin(RunFolder folder, Path file, List<Problem> problems) {
        this.folder = folder;
        this.file = file;
        this.problems = problems;
    }

    /** What is read before something goes wrong stays. */
    void read() {
        try {
            JournalReader.read(file, this);
        } catch (FileSystemException unusable) {
            String why = unusable.getReason();
            problem(0, (why == null ? "cannot be opened (" + unusable + ")" : why) + ": it is left out");
        } catch (IOException broken) {
            problem(0, "cannot be read further (" + broken + "): what was read until here is there");
        }
        for (int i = steps.size() - 1; i >= 0; i--) steps.get(i).handOnLast();
        for (int i = tests.size() - 1; i >= 0; i--) tests.get(i).handOnLast();
        for (int i = containers.size() - 1; i >= 0; i--) containers.get(i).handOnLast();
        described.forEach((id, waiting) -> problem(
                waiting.line(), "describes " + id + ", whose beginning is not in this journal; it is left out"));
        if (missing() > 0)
            problems.add(new Problem(
                    folder.nameInJournal(file),
                    0,
                    missing() + (missing() == 1 ? " event" : " events") + " could not be recorded: " + missingByKind));
        if (problemsHere > MOST_PROBLEMS)
            problems.add(new Problem(
                    folder.nameInJournal(file),
                    0,
                    (problemsHere - MOST_PROBLEMS) + " more problems like the last ones are not listed"));
    }

    @Override
    public void unread(int line, String why) {
        problem(line, why);
    }

    @Override
    public void odd(int line, String what) {
        problem(line, what);
    }

    @Override
    public void event(Event event, int line) {
        lastAt = Math.max(lastAt, event.at());
        if (event instanceof StepStarted e) {
            OpenNode outer = outer(e, e.in(), line);
            var step = new OpenNode(outer, e);
            outer.add(step);
            steps.add(step);
            begins(e.id(), step, line);
        } else if (event instanceof StepEnded e) {
            OpenNode step = ending(e, e.id(), StepStarted.class, line);
            if (step != null) step.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
        } else if (event instanceof NoteWritten e) {
            outer(e, e.in(), line).add(new Entry.NoteEntry(moment(e), e.text(), e.thread()));
        } else if (event instanceof DataNamed e) {
            outer(e, e.in(), line).add(new Entry.DataEntry(moment(e), e.name(), e.value()));
        } else if (event instanceof LogWritten e) {
            outer(e, e.in(), line)
                    .add(new Entry.LogEntry(
                            moment(e),
                            e.level(),
                            e.logger(),
                            e.text(),
                            e.thread(),
                            e.context(),
                            whole(e.failure(), line)));
        } else if (event instanceof CheckMade e) {
            outer(e, e.in(), line)
                    .add(new Entry.CheckEntry(moment(e), e.name(), e.outcome(), whole(e.failure(), line), e.about()));
        } else if (event instanceof StepBudgeted e) {
            OpenNode step = ending(e, e.id(), StepStarted.class, line);
            if (step != null) step.budget = Duration.ofNanos(e.micros() * 1_000);
        } else if (event instanceof TestDescribed e) {
            OpenNode test = nodes.get(e.id());
            if (test != null) test.about = test.about.and(e);
            else
                described.put(
                        e.id(),
                        new Described(
                                described.containsKey(e.id())
                                        ? described.get(e.id()).about().and(e)
                                        : About.NOTHING.and(e),
                                line));
        } else if (event instanceof ExchangeMade e) {
            OpenNode outer = outer(e, e.in(), line);
            outer.lastedUntil(e.at() + Math.max(0, e.micros()));
            outer.addWhereItBegan(new Entry.ExchangeEntry(moment(e), e, files(e, line)), e.at());
        } else if (event instanceof PaperPromised e) {
            OpenNode outer = outer(e, e.in(), line);
            promises.put(e.id(), outer);
            outer.add(new Entry.PaperEntry(moment(e), e.name(), e.kind(), "", "", null, e.id(), false, null));
        } else if (event instanceof PaperKept e) {
            OpenNode promised = promises.remove(e.promise());
            if (promised != null) promised.remove(e.promise());
            outer(e, e.in(), line).add(paper(e, line));
        } else if (event instanceof TestStarted e) {
            opens(e.id(), new OpenNode(outer(e, e.in(), line), e), tests, line);
        } else if (event instanceof TestEnded e) {
            OpenNode test = ending(e, e.id(), TestStarted.class, line);
            if (test != null) test.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
        } else if (event instanceof ContainerStarted e) {
            opens(e.id(), new OpenNode(outer(e, e.in(), line), e), containers, line);
        } else if (event instanceof ContainerEnded e) {
            OpenNode container = ending(e, e.id(), ContainerStarted.class, line);
            if (container == null) return;
            container.ended(e.at(), e.outcome(), e.reason(), whole(e.failure(), line));
            container.notRun = e.notRun();
        } else if (event instanceof FactStated e) {
            facts.put(e.name(), e.value());
        } else if (event instanceof ProblemMet e) {
            problem(line, e.text());
        } else if (event instanceof EventsMissed e) {
            missingByKind = e.byKind();
        } else if (event instanceof JournalEnded e) {
            ended = true;
            missingByKind = e.missingByKind();
            cost = Duration.ofNanos(e.cost() * 1_000);
        } else if (event instanceof JournalOpened e) {
            opened(e, line);
        } else {
            throw new IllegalArgumentException("no reading is known for " + event.getClass());
        }
    }

    private void opened(JournalOpened e, int line) {
        opened = e;
        if (e.format() > JournalFormat.VERSION)
            problem(
                    line,
                    "the journal has format " + e.format() + " and this reader knows " + JournalFormat.VERSION
                            + ": what is new in it is left out. Read it with a newer Verbale");
    }

    private void opens(int id, OpenNode node, List<OpenNode> kind, int line) {
        kind.add(node);
        begins(id, node, line);
    }

    private void begins(int id, OpenNode node, int line) {
        if (nodes.put(id, node) != null) problem(line, "begins " + id + " a second time; what follows is of this one");
        Described waiting = described.remove(id);
        if (waiting != null) node.about = waiting.about();
    }

    /** A failure that an event only refers to is where it was written down. */
    private @Nullable Failure whole(@Nullable Failure told, int line) {
        if (told == null) return null;
        if (told.isReference()) {
            Failure known = failures.get(told.id());
            if (known != null) return known;
            problem(line, "refers to the failure " + told.id() + ", which is not in this journal");
            return new Failure("unknown", "It was to be recorded earlier, and is missing", "", null, null, List.of());
        }
        List<Failure> gathered = new ArrayList<>();
        for (Failure one : told.gathered()) {
            Failure inner = whole(one, line);
            if (inner != null) gathered.add(inner);
        }
        var whole = new Failure(
                told.id(), told.type(), told.message(), told.stack(), told.expected(), told.actual(), gathered);
        if (told.id() != 0) failures.put(told.id(), whole);
        return whole;
    }

    private long missing() {
        long all = 0;
        for (long count : missingByKind.values()) all += Math.max(0, count);
        return all;
    }

    private OpenNode outer(Event event, int in, int line) {
        if (in == 0) return run;
        OpenNode outer = nodes.get(in);
        if (outer != null) {
            outer.lastedUntil(event.at());
            return outer;
        }
        problem(line, "belongs to " + in + ", whose beginning is not in this journal; it is shown with the run");
        return run;
    }

    private @Nullable OpenNode ending(Event event, int id, Class<? extends Event> kind, int line) {
        OpenNode node = nodes.get(id);
        if (node != null && kind.isInstance(node.start)) {
            node.lastedUntil(event.at());
            return node;
        }
        problem(line, "ends " + id + ", whose beginning is not in this journal");
        return null;
    }

    private Map<String, Path> files(ExchangeMade made, int line) {
        Map<String, Path> files = new HashMap<>();
        files(made.request().body(), files, line);
        if (made.response() != null) files(made.response().body(), files, line);
        return files;
    }

    private void files(ExchangeMade.@Nullable Body body, Map<String, Path> files, int line) {
        if (body == null) return;
        for (ExchangeMade.Part part : body.parts()) files(part.body(), files, line);
        if (body.file() == null) return;
        RunFolder.FileInRun stored = folder.file(body.file());
        if (stored.path() != null) files.put(body.file(), stored.path());
        else problem(line, "the body '" + body.file() + "' " + stored.why());
    }

    private Entry.PaperEntry paper(PaperKept e, int line) {
        RunFolder.FileInRun stored = folder.file(e.file());
        if (stored.path() == null) problem(line, "the paper '" + e.file() + "' " + stored.why());
        return new Entry.PaperEntry(
                moment(e),
                e.name(),
                e.kind(),
                e.mediaType(),
                e.file(),
                stored.path(),
                e.size(),
                true,
                e.begins() == 0 ? null : OpenNode.moment(wall(), e.begins()));
    }

    private void problem(int line, String what) {
        if (++problemsHere <= MOST_PROBLEMS) problems.add(new Problem(folder.nameInJournal(file), line, what));
    }

    private Instant wall() {
        return opened == null ? Instant.EPOCH : opened.wall();
    }

    private Instant moment(Event event) {
        return OpenNode.moment(wall(), event.at());
    }

    Instant first() {
        return wall();
    }

    Instant last() {
        return OpenNode.moment(wall(), lastAt);
    }

    Map<String, String> facts() {
        return facts;
    }

    Worker worker() {
        String name = file.getFileName().toString().replace(JournalFormat.FILE_SUFFIX, "");
        return new Worker(name, opened == null ? 0 : opened.pid(), wall(), ended, missing(), missingByKind, cost);
    }

    List<TestResult> tests() {
        return tests.stream().map(this::test).toList();
    }

    private TestResult test(OpenNode node) {
        var start = (TestStarted) node.start;
        if (node.outcome == Outcome.UNFINISHED) addFilms(node, start);
        return new TestResult(
                start.key(),
                1,
                start.name(),
                path(node),
                start.className(),
                start.methodName(),
                start.tags(),
                node.outcome,
                node.reason,
                node.failure,
                moment(start),
                node.took(),
                worker().name(),
                start.thread(),
                node.about,
                false,
                false,
                node.entries(this::step, wall()));
    }

    /** What was filmed until the JVM was killed; nobody came to make a video of it. */
    private void addFilms(OpenNode test, TestStarted start) {
        List<Path> films;
        try {
            films = folder.films(worker().pid(), start.id());
        } catch (IOException unreadable) {
            problem(0, "the folder of films cannot be read: " + unreadable);
            return;
        }
        for (Path film : films)
            test.add(new Entry.PaperEntry(
                    OpenNode.moment(wall(), lastAt),
                    "film, as far as it came",
                    PaperKept.VIDEO,
                    "video/x-matroska",
                    folder.nameInJournal(film),
                    film,
                    film.toFile().length(),
                    true,
                    null));
    }

    List<ContainerResult> containers() {
        return containers.stream().map(this::container).toList();
    }

    private ContainerResult container(OpenNode node) {
        var start = (ContainerStarted) node.start;
        return new ContainerResult(
                start.key(),
                start.name(),
                path(node),
                start.className(),
                // A container has no end only because the JVM had none; its open tests say so already.
                node.outcome == Outcome.UNFINISHED ? Outcome.PASSED : node.outcome,
                node.reason,
                node.failure,
                node.notRun,
                moment(start),
                node.took(),
                worker().name(),
                node.entries(this::step, wall()));
    }

    List<Entry> entries() {
        return run.entries(this::step, wall());
    }

    private Entry step(OpenNode node) {
        var start = (StepStarted) node.start;
        return new Entry.StepEntry(
                moment(start),
                start.kind(),
                start.name(),
                node.outcome,
                node.took(),
                node.budget,
                node.reason,
                node.failure,
                start.thread(),
                node.entries(this::step, wall()));
    }

    private static List<String> path(OpenNode node) {
        var names = new LinkedList<String>();
        int hops = 0;
        for (OpenNode outer = node.outer; outer != null && hops++ < OpenNode.DEEPEST; outer = outer.outer)
            if (outer.start instanceof ContainerStarted container && container.methodName() == null)
                names.addFirst(container.name()); // a method's name is in the names of its tests
        return names;
    }
}
