package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.folder.MediaTypes;
import dev.verbale.recorder.Description;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.LogLine;
import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Scope;
import dev.verbale.recorder.Step;
import dev.verbale.secrets.Redactor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Writes the minutes to a run folder. Every call goes through the {@link Guard}, and nearly every one is one event. */
public final class FileRecorder implements Recorder {

    final Minutes minutes = new Minutes();
    final Guard guard = new Guard(minutes.problems);
    final FailureReading failures = FailureReading.withInstalledReaders(minutes.problems);
    final AtomicInteger ids = new AtomicInteger();

    private final EvidenceDesk evidence = new EvidenceDesk(this);
    private final Map<String, String> facts = new ConcurrentHashMap<>();
    private final Totals totals = new Totals();
    private final AtomicInteger said = new AtomicInteger();
    private final ScopeNode run = new ScopeNode(0, null, new Owner(null, false, () -> Path.of("run")), null);
    private final Set<ScopeNode> openTests = ConcurrentHashMap.newKeySet();

    final RecorderOptions options;
    private final Redactor redactor;
    private final RunOpening opening;
    private final PaperStore papers;
    private final LogKeeping logs;
    private final Descriptions descriptions;
    final ExchangeKeeping exchanges;

    private FileRecorder(RecorderOptions options, List<String> problemsSoFar) throws IOException {
        this.options = options;
        this.redactor = Redactors.of(options, problemsSoFar);
        this.opening = RunOpening.open(options, minutes.clock, Version.text(), redactor);
        this.papers = new PaperStore(opening.folder(), redactor);
        this.logs = new LogKeeping(this, options.logging());
        this.descriptions = new Descriptions(this, options.linkPatterns());
        this.exchanges = new ExchangeKeeping(this, minutes.problems);
        Rehearsal.of(opening.journal(), redactor, failures); // before the first real event, and before a shutdown
        minutes.open(opening.journal());
        problemsSoFar.forEach(minutes.problems::add);
    }

    /**
     * Opens a recorder with a journal of its own.
     *
     * @throws IOException where the run folder or the journal cannot be made
     */
    static FileRecorder open(RecorderOptions options, List<String> problemsSoFar) throws IOException {
        return new FileRecorder(options, problemsSoFar);
    }

    @Override
    public Path folder() {
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
        return here(guard.seat());
    }

    @Override
    public Scope startContainer(Scope in, Identity who) {
        return guard.get("starting container " + who.name(), () -> run, seat -> {
            ScopeNode outer = node(in);
            Supplier<Path> folder = () -> Path.of("tests", ScopeFolders.ofClass(masked(who)), "class");
            var container =
                    new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, false, folder), seat.here);
            seat.here = container;
            minutes.append(new ContainerStarted(
                    minutes.clock.micros(),
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
        evidence.ends(node);
        guard.run("ending a container", seat -> {
            if (!endsOnce(node, "container")) return;
            node.leave(seat);
            minutes.append(new ContainerEnded(
                    minutes.clock.micros(), node.id(), outcome(ending), reason(ending), failure(ending), notRun));
        });
    }

    @Override
    public Scope startTest(Scope in, Identity who) {
        return guard.get("starting test " + who.name(), () -> run, seat -> {
            ScopeNode outer = node(in);
            Supplier<Path> folder = () -> {
                Identity masked = masked(who);
                return Path.of("tests", ScopeFolders.ofClass(masked), ScopeFolders.ofTest(masked));
            };
            var test = new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, true, folder), seat.here);
            seat.here = test;
            openTests.add(test);
            minutes.append(new TestStarted(
                    minutes.clock.micros(),
                    test.id(),
                    outer.id(),
                    who.key(),
                    who.name(),
                    who.className(),
                    who.methodName(),
                    Thread.currentThread().getName(),
                    who.tags()));
            return test;
        });
    }

    /** For names of folders, in which a secret could not be found any more once it lost its odd characters. */
    private Identity masked(Identity who) {
        return new Identity(
                redactor.redacted(who.key()),
                redactor.redacted(who.name()),
                maskedOrNull(who.className()),
                maskedOrNull(who.methodName()),
                List.of());
    }

    private @Nullable String maskedOrNull(@Nullable String text) {
        return text == null ? null : redactor.redacted(text);
    }

    @Override
    public void endTest(Scope test, Ending ending) {
        ScopeNode node = node(test);
        if (ending.failure() != null && ending.outcome() != Outcome.EXPECTED) takeEvidenceIn(node, ending.failure());
        evidence.ends(node);
        for (OpenExchange open : node.owner.openExchanges()) open.ownerEnded();
        guard.run("ending a test", seat -> {
            if (!endsOnce(node, "test")) return;
            openTests.remove(node);
            logs.sayWhatWasLeftOut(node);
            node.leave(seat);
            Outcome outcome = outcome(ending);
            totals.add(outcome);
            minutes.append(new TestEnded(minutes.clock.micros(), node.id(), outcome, reason(ending), failure(ending)));
        });
    }

    @Override
    public Step startStep(StepKind kind, String name) {
        return startStep(kind, name, false);
    }

    @Override
    public Step startStepBeside(StepKind kind, String name) {
        return startStep(kind, name, true);
    }

    private Step startStep(StepKind kind, String name, boolean beside) {
        Seat seat = guard.seat();
        if (seat.recording) return DisabledRecorder.NO_STEP; // by a log line that storing another one caused
        var step = new OpenStep(this, ids.incrementAndGet(), here(seat), seat.here, beside);
        if (!beside) seat.here = step;
        guard.run("starting a step", step, kind, name, FileRecorder::stepStarts);
        return step;
    }

    private static void stepStarts(OpenStep step, Seat seat, StepKind kind, @Nullable String name) {
        FileRecorder self = step.recorder;
        ScopeNode outer = step.outer == null ? self.run : step.outer;
        self.minutes.append(new StepStarted(
                self.minutes.clock.micros(),
                step.id(),
                outer.id(),
                kind,
                String.valueOf(name),
                self.strayThread(step.before, outer)));
    }

    void endStep(OpenStep step, Outcome outcome, @Nullable Failure failure) {
        guard.run("ending a step", step, outcome, failure, FileRecorder::stepEnds);
    }

    private static void stepEnds(OpenStep step, Seat seat, Outcome outcome, @Nullable Failure failure) {
        step.recorder.stepEnds(step, seat, outcome, null, failure);
    }

    private void stepEnds(
            OpenStep step, Seat seat, Outcome outcome, @Nullable String reason, @Nullable Failure failure) {
        if (!endsOnce(step, "step")) return;
        if (!step.beside && !step.leave(seat))
            minutes.problems.add(
                    "A step was ended on another thread than began it, or after a step around it, on thread "
                            + Thread.currentThread().getName());
        minutes.append(new StepEnded(minutes.clock.micros(), step.id(), outcome, reason, failure));
    }

    void skipStep(OpenStep step, String reason) {
        guard.run("skipping a step", seat -> stepEnds(step, seat, Outcome.SKIPPED, String.valueOf(reason), null));
    }

    void budgetStep(OpenStep step, Duration budget) {
        guard.run("giving a step its time", seat -> {
            long micros = Math.max(1, budget.toNanos() / 1_000);
            minutes.append(new StepBudgeted(minutes.clock.micros(), step.id(), micros));
        });
    }

    void failStep(OpenStep step, Throwable thrown) {
        boolean first = takeEvidenceIn(step, thrown);
        guard.run(
                "failing a step",
                seat -> stepEnds(step, seat, failures.outcome(thrown), null, first ? failures.failure(thrown) : null));
    }

    @Override
    public Stay enter(Scope scope) {
        Seat seat = guard.seat();
        ScopeNode before = seat.here;
        ScopeNode node = node(scope);
        if (node == run || (before != null && before.isWithin(node))) return () -> {};
        seat.here = node;
        return () -> seat.here = before;
    }

    @Override
    public void takeEvidence(Throwable failure) {
        takeEvidenceIn(here(guard.seat()), failure);
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
    public void secret(String value) {
        guard.run("announcing a secret", seat -> redactor.announce(value));
    }

    @Override
    public void gatherChecks() {
        guard.run("gathering checks", seat -> here(seat).owner.checks = new GatheredChecks());
    }

    @Override
    public @Nullable ChecksFailed failedChecks() {
        GatheredChecks checks = here(guard.seat()).owner.checks;
        return checks == null ? null : checks.all();
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return checkedIn(here(guard.seat()), name, failure, 0);
    }

    /** Whether its failure is gathered. */
    boolean checkedIn(ScopeNode here, String name, @Nullable Throwable failure, int exchange) {
        writeCheck(here, name, failure, exchange);
        GatheredChecks checks = here.owner.checks;
        if (failure == null || checks == null) return false;
        checks.add(String.valueOf(name), failure);
        return true;
    }

    @Override
    public void observed(String name, Throwable failure) {
        writeCheck(here(guard.seat()), name, failure, 0);
    }

    private void writeCheck(ScopeNode here, String name, @Nullable Throwable failure, int exchange) {
        if (failure != null) takeEvidenceIn(here, failure);
        guard.run("writing a check", seat -> {
            Outcome outcome = failure == null ? Outcome.PASSED : failures.outcome(failure);
            Failure told = failure == null ? null : failures.failure(failure);
            long at = minutes.clock.micros();
            minutes.append(new CheckMade(at, here.id(), String.valueOf(name), outcome, told, exchange));
        });
    }

    @Override
    public void describe(Description description) {
        guard.run("describing a test", seat -> descriptions.write(here(seat), description));
    }

    @Override
    public void note(String text) {
        guard.run("writing a note", this, text, null, FileRecorder::noteHere);
    }

    private void noteHere(Seat seat, String text, @Nullable Void nothing) {
        noteNow(seat, here(seat), text);
    }

    void noteIn(ScopeNode scope, String text) {
        guard.run("writing a note", seat -> noteNow(seat, scope, text));
    }

    private void noteNow(Seat seat, ScopeNode scope, String text) {
        String shown = LongText.shown(this, scope, String.valueOf(text));
        minutes.append(new NoteWritten(minutes.clock.micros(), scope.id(), shown, strayThread(seat.here, scope)));
    }

    @Override
    public Exchange exchange(String method, String url) {
        return guard.get("beginning an exchange", () -> NoExchange.NONE, seat -> {
            ScopeNode scope = here(seat);
            String thread = strayThread(seat.here, scope);
            var begun = new OpenExchange(this, scope, thread, String.valueOf(method), String.valueOf(url));
            if (scope.owner.isTest) scope.owner.begins(begun);
            return begun;
        });
    }

    @Override
    public Exchange exchange(Scope in, String method, String url) {
        return guard.get("beginning an exchange", () -> NoExchange.NONE, seat -> {
            ScopeNode scope = node(in);
            String thread = scope.owner.isTest ? null : Thread.currentThread().getName();
            return new OpenExchange(this, scope, thread, String.valueOf(method), String.valueOf(url));
        });
    }

    /** Stores something that an event names, and gives the name. */
    String store(ScopeNode scope, String name, InputStream content, String mediaType) throws IOException {
        return papers.keep(scope.owner, name, mediaType, content).fileInJournal();
    }

    @Override
    public void log(LogLine line) {
        guard.run("keeping a log line", logs, line, null, LogKeeping::keep);
    }

    @Override
    public void data(String name, @Nullable Object value) {
        guard.run(
                "naming data",
                seat -> minutes.append(new DataNamed(
                        minutes.clock.micros(), here(seat).id(), String.valueOf(name), shown(name, value))));
    }

    @Override
    public void fact(String name, @Nullable Object value) {
        guard.run("stating a fact", seat -> {
            String text = shown(name, value);
            if (text.equals(facts.put(String.valueOf(name), text))) return; // set-up code states it for each test
            minutes.append(new FactStated(minutes.clock.micros(), String.valueOf(name), text));
        });
    }

    String redacted(String text) {
        return redactor.redacted(text);
    }

    boolean isSecretName(String name) {
        return redactor.isSecretName(name);
    }

    String shown(@Nullable String name, @Nullable Object value) {
        return name != null && redactor.isSecretName(name) ? Redactor.MASK : NoteText.shown(value);
    }

    @Override
    public void attach(String name, byte[] content, String mediaType) {
        attach(name, new ByteArrayInputStream(content), mediaType);
    }

    @Override
    public void attach(String name, InputStream content, String mediaType) {
        guard.run("attaching " + name, seat -> keep(here(seat), name, PaperKept.ATTACHMENT, content, mediaType, 0, 0));
    }

    @Override
    public void attach(Path file) {
        guard.run(
                "attaching " + file,
                seat -> keepFile(here(seat), String.valueOf(file.getFileName()), PaperKept.ATTACHMENT, file, 0, 0));
    }

    @Override
    public void attachMoved(Path file) {
        guard.run("attaching " + file, seat -> {
            keepFile(here(seat), String.valueOf(file.getFileName()), PaperKept.ATTACHMENT, file, 0, 0);
            Files.delete(file);
        });
    }

    @Override
    public void paper(Scope in, String name, String kind, InputStream content, String mediaType, long begins) {
        guard.run("keeping " + name, seat -> keep(node(in), name, kind, content, mediaType, 0, begins));
    }

    @Override
    public Scope owner() {
        return here(guard.seat()).ofOwner();
    }

    @Override
    public long now() {
        return minutes.clock.micros();
    }

    @Override
    public String setting(String key, String otherwise, List<String> allowed) {
        String value = options.adapters().get(key);
        if (value == null || value.isEmpty()) return otherwise;
        if (allowed.isEmpty() || allowed.contains(value)) return value;
        minutes.problems.add(
                key + ": '" + value + "' is none of " + String.join(", ", allowed) + ". Using " + otherwise + ".");
        return otherwise;
    }

    @Override
    public PromisedPaper promise(String name, String kind) {
        return promiseIn(null, name, kind);
    }

    /** In the scope of this thread where {@code scope} is null. */
    PromisedPaper promiseIn(@Nullable ScopeNode scope, String name, String kind) {
        return guard.get("promising " + name, () -> DisabledRecorder.NO_PROMISE, seat -> {
            ScopeNode owner = scope == null ? here(seat) : scope;
            var promised = new Promised(this, owner, ids.incrementAndGet(), String.valueOf(name), kind);
            minutes.append(promised.event(minutes.clock.micros()));
            return promised;
        });
    }

    void keepIn(ScopeNode scope, String name, String kind, byte[] content, String mediaType) {
        guard.run(
                "keeping " + name, seat -> keep(scope, name, kind, new ByteArrayInputStream(content), mediaType, 0, 0));
    }

    void keepFile(ScopeNode scope, String name, String kind, Path file, int promise, long begins) throws IOException {
        try (InputStream content = Files.newInputStream(file)) {
            keep(scope, name, kind, content, MediaTypes.ofFile(String.valueOf(file.getFileName())), promise, begins);
        }
    }

    void keep(
            ScopeNode scope, String name, String kind, InputStream content, String mediaType, int promise, long begins)
            throws IOException {
        long at = minutes.clock.micros(); // the moment it was taken; a large one takes a while to store
        try {
            PaperStore.Stored stored = papers.keep(scope.owner, name, mediaType, content);
            minutes.append(new PaperKept(
                    at,
                    scope.id(),
                    name,
                    kind,
                    stored.mediaType(),
                    stored.fileInJournal(),
                    stored.size(),
                    stored.sha256(),
                    promise,
                    begins));
        } catch (IOException unwritten) {
            minutes.missed("PaperKept");
            throw unwritten;
        }
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
        guard.run("ending the journal", seat -> minutes.end(guard.cost()));
    }

    private static String shown(Path folder) {
        Path here = Path.of("").toAbsolutePath();
        Path there = folder.toAbsolutePath().normalize();
        return String.valueOf(there.startsWith(here) ? here.relativize(there) : there);
    }

    private boolean endsOnce(ScopeNode node, String what) {
        if (node == run) return false; // its start was a problem, and that is said already
        if (node.endsNow()) return true;
        minutes.problems.add("A " + what + " was ended a second time on thread "
                + Thread.currentThread().getName());
        return false;
    }

    /** The thread's name where it is not told by the test that the line belongs to. */
    @Nullable
    String strayThread(@Nullable ScopeNode current, ScopeNode scope) {
        return scope.owner.isTest && current != null
                ? null
                : Thread.currentThread().getName();
    }

    ScopeNode here(Seat seat) {
        ScopeNode here = seat.here;
        if (here != null) return here;
        if (!options.strayLinesToOnlyTest() || openTests.size() != 1) return run;
        for (ScopeNode only : openTests) return only;
        return run;
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
