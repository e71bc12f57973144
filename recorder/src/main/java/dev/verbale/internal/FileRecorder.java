package dev.verbale.internal;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.folder.MediaTypes;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Scope;
import dev.verbale.recorder.Step;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/** Writes the minutes to a run folder. Every call goes through the {@link Guard}, and nearly every one is one event. */
public final class FileRecorder implements Recorder {

    private final MonotonicClock clock = new MonotonicClock();
    private final AtomicInteger ids = new AtomicInteger();
    private final AtomicLong missing = new AtomicLong();
    private final Problems problems = new Problems(text -> appendQuietly(new ProblemMet(clock.micros(), text)));
    private final Guard guard = new Guard(problems);
    private final FailureReading failures = FailureReading.withInstalledReaders(problems);
    private final EvidenceDesk evidence = new EvidenceDesk(this);
    private final Map<String, String> facts = new ConcurrentHashMap<>();
    private final Totals totals = new Totals();
    private final AtomicInteger said = new AtomicInteger();
    private final ScopeNode run = new ScopeNode(0, null, new Owner(null, false, Path.of("run")), null);

    private final RecorderOptions options;
    private final RunOpening opening;
    private final PaperStore papers;

    private FileRecorder(RecorderOptions options) throws IOException {
        this.options = options;
        this.opening = RunOpening.open(options, clock, Version.text());
        this.papers = new PaperStore(opening.folder());
    }

    /**
     * Opens a recorder with a journal of its own.
     *
     * @throws IOException where the run folder or the journal cannot be made
     */
    static FileRecorder open(RecorderOptions options, List<String> problemsSoFar) throws IOException {
        var recorder = new FileRecorder(options);
        problemsSoFar.forEach(recorder.problems::add);
        return recorder;
    }

    /** Where this recorder writes. */
    Path folder() {
        return opening.folder().path();
    }

    @Override
    public boolean isRecording() {
        return true;
    }

    @Override
    public Scope run() {
        return run;
    }

    @Override
    public Scope here() {
        ScopeNode here = guard.seat().here;
        return here == null ? run : here;
    }

    @Override
    public Scope startContainer(Scope in, Identity who) {
        return guard.get("starting container " + who.name(), () -> run, seat -> {
            ScopeNode outer = node(in);
            Path folder = Path.of("tests", ScopeFolders.ofClass(who), "class");
            var container =
                    new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, false, folder), seat.here);
            seat.here = container;
            append(new ContainerStarted(
                    clock.micros(),
                    container.id(),
                    outer.id(),
                    who.key(),
                    who.name(),
                    who.className(),
                    who.methodName()));
            return container;
        });
    }

    @Override
    public void endContainer(Scope container, Ending ending, int notRun) {
        ScopeNode node = node(container);
        if (ending.failure() != null) takeEvidenceIn(node, ending.failure());
        guard.run("ending a container", seat -> {
            if (!endsOnce(node, "container")) return;
            node.leave(seat);
            append(new ContainerEnded(
                    clock.micros(), node.id(), outcome(ending), reason(ending), failure(ending), notRun));
        });
    }

    @Override
    public Scope startTest(Scope in, Identity who) {
        return guard.get("starting test " + who.name(), () -> run, seat -> {
            ScopeNode outer = node(in);
            Path folder = Path.of("tests", ScopeFolders.ofClass(who), ScopeFolders.ofTest(who));
            var test = new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, true, folder), seat.here);
            seat.here = test;
            append(new TestStarted(
                    clock.micros(),
                    test.id(),
                    outer.id(),
                    who.key(),
                    who.name(),
                    who.className(),
                    who.methodName(),
                    Thread.currentThread().getName(),
                    who.tags().stream().sorted().toList()));
            return test;
        });
    }

    @Override
    public void endTest(Scope test, Ending ending) {
        ScopeNode node = node(test);
        if (ending.failure() != null) takeEvidenceIn(node, ending.failure());
        guard.run("ending a test", seat -> {
            if (!endsOnce(node, "test")) return;
            node.leave(seat);
            Outcome outcome = outcome(ending);
            totals.add(outcome);
            append(new TestEnded(clock.micros(), node.id(), outcome, reason(ending), failure(ending)));
        });
    }

    @Override
    public Step startStep(StepKind kind, String name) {
        return guard.get("starting a step", () -> DisabledRecorder.NO_STEP, seat -> {
            ScopeNode outer = here(seat);
            var step = new OpenStep(this, ids.incrementAndGet(), outer, seat.here);
            seat.here = step;
            append(new StepStarted(
                    clock.micros(), step.id(), outer.id(), kind, String.valueOf(name), strayThread(outer)));
            return step;
        });
    }

    void endStep(OpenStep step, Outcome outcome, @Nullable Failure failure) {
        guard.run("ending a step", seat -> {
            if (!endsOnce(step, "step")) return;
            step.leave(seat);
            append(new StepEnded(clock.micros(), step.id(), outcome, failure));
        });
    }

    void failStep(OpenStep step, Throwable thrown) {
        boolean first = takeEvidenceIn(step, thrown);
        Failure failure = first
                ? guard.<@Nullable Failure>get("reading a failure", () -> null, s -> failures.failure(thrown))
                : null;
        endStep(step, failures.outcome(thrown), failure);
    }

    @Override
    public Stay enter(Scope scope) {
        Seat seat = guard.seat();
        ScopeNode before = seat.here;
        ScopeNode node = node(scope);
        if (before != null && before.isWithin(node)) return () -> {};
        seat.here = node;
        return () -> seat.here = before;
    }

    @Override
    public void takeEvidence(Throwable failure) {
        takeEvidenceIn(node(here()), failure);
    }

    /** Whether this failure was not seen before. */
    private boolean takeEvidenceIn(ScopeNode scope, Throwable failure) {
        boolean first = scope.owner.seesFirst(failure);
        if (first && failures.outcome(failure).needsAttention()) evidence.take(scope);
        return first;
    }

    @Override
    public void announce(EvidenceSource source) {
        guard.run("announcing a source of evidence", seat -> here(seat).owner.announce(source));
    }

    @Override
    public void note(String text) {
        guard.run("writing a note", seat -> noteNow(here(seat), text));
    }

    void noteIn(ScopeNode scope, String text) {
        guard.run("writing a note", seat -> noteNow(scope, text));
    }

    private void noteNow(ScopeNode scope, String text) {
        append(new NoteWritten(clock.micros(), scope.id(), String.valueOf(text), strayThread(scope)));
    }

    @Override
    public void data(String name, @Nullable Object value) {
        guard.run(
                "naming data",
                seat -> append(
                        new DataNamed(clock.micros(), here(seat).id(), String.valueOf(name), NoteText.shown(value))));
    }

    @Override
    public void fact(String name, @Nullable Object value) {
        guard.run("stating a fact", seat -> {
            String text = NoteText.shown(value);
            if (text.equals(facts.put(String.valueOf(name), text))) return; // set-up code states it for each test
            append(new FactStated(clock.micros(), String.valueOf(name), text));
        });
    }

    @Override
    public void attach(String name, byte[] content, String mediaType) {
        attach(name, new ByteArrayInputStream(content), mediaType);
    }

    @Override
    public void attach(String name, InputStream content, String mediaType) {
        guard.run("attaching " + name, seat -> keep(here(seat), name, PaperKept.ATTACHMENT, content, mediaType));
    }

    @Override
    public void attach(Path file) {
        guard.run("attaching " + file, seat -> {
            String name = String.valueOf(file.getFileName());
            try (InputStream content = Files.newInputStream(file)) {
                keep(here(seat), name, PaperKept.ATTACHMENT, content, MediaTypes.ofFile(name));
            }
        });
    }

    void keepIn(ScopeNode scope, String name, String kind, byte[] content, String mediaType) {
        guard.run("keeping " + name, seat -> keep(scope, name, kind, new ByteArrayInputStream(content), mediaType));
    }

    private void keep(ScopeNode scope, String name, String kind, InputStream content, String mediaType)
            throws IOException {
        long at = clock.micros(); // the moment it was taken; a large one takes a while to store
        PaperStore.Stored stored = papers.keep(scope.owner, name, mediaType, content);
        append(new PaperKept(at, scope.id(), name, kind, mediaType, stored.fileInJournal(), stored.size()));
    }

    @Override
    public void sessionEnded() {
        guard.run("saying the totals", seat -> {
            int all = totals.all();
            if (!options.closingLine() || said.getAndSet(all) == all) return;
            System.out.println("Verbale: " + totals.sentence() + ". Minutes in " + shown(folder()));
        });
    }

    /** The JVM ends: whatever is still recorded after this is kept too, only behind the journal's last word. */
    void end() {
        sessionEnded();
        guard.run("ending the journal", seat -> {
            append(new JournalEnded(clock.micros(), missing.get()));
            opening.journal().sync();
        });
    }

    private static String shown(Path folder) {
        Path here = Path.of("").toAbsolutePath();
        Path there = folder.toAbsolutePath().normalize();
        return String.valueOf(there.startsWith(here) ? here.relativize(there) : there);
    }

    private void append(Event event) {
        try {
            opening.journal().append(event);
        } catch (IOException unwritten) {
            missing.incrementAndGet();
            problems.add("writing to the journal", unwritten);
        }
    }

    private void appendQuietly(Event event) {
        try {
            opening.journal().append(event);
        } catch (IOException unwritten) {
            missing.incrementAndGet(); // the disk that refused the problem's cause refuses the problem too
        }
    }

    private boolean endsOnce(ScopeNode node, String what) {
        if (node == run) return false; // its start was a problem, and that is said already
        if (node.endsNow()) return true;
        problems.add("A " + what + " was ended a second time on thread "
                + Thread.currentThread().getName());
        return false;
    }

    private @Nullable String strayThread(ScopeNode scope) {
        return scope.owner.isTest ? null : Thread.currentThread().getName();
    }

    private ScopeNode here(Seat seat) {
        ScopeNode here = seat.here;
        return here == null ? run : here;
    }

    private ScopeNode node(Scope scope) {
        return scope instanceof ScopeNode node ? node : run; // a token of a recorder that was switched off
    }

    private Outcome outcome(Ending ending) {
        if (ending.outcome() != null) return ending.outcome();
        return ending.failure() == null ? Outcome.PASSED : failures.outcome(ending.failure());
    }

    private @Nullable String reason(Ending ending) {
        if (ending.reason() != null || ending.failure() == null) return ending.reason();
        return outcome(ending) == Outcome.ABORTED ? ending.failure().getMessage() : null;
    }

    private @Nullable Failure failure(Ending ending) {
        return ending.failure() == null ? null : failures.failure(ending.failure());
    }
}
