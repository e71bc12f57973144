package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.ContentSource;
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
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Writes the minutes to a run folder. Every call goes through the {@link Guard}, and nearly every one is one event. */
public final class FileRecorder implements Recorder {

    /** Of names: of steps, tests, data. They stand in lists and in one line each. */
    private static final int LONGEST_NAME = 1_000;

    /** Of what an assertion expected and got: a reader compares them, and more than this nobody does by eye. */
    private static final int LONGEST_VALUE = 100_000;

    final Minutes minutes = new Minutes();
    final Guard guard = new Guard(minutes);
    final Shortening shortening;
    final FailureReading failures;
    final AtomicInteger ids = new AtomicInteger();

    private final EvidenceDesk evidence = new EvidenceDesk(this);
    private final Map<String, String> facts = new ConcurrentHashMap<>();
    private final ScopeNode run = new ScopeNode(0, null, new Owner(null, false, () -> List.of("run")), null);
    private final Set<ScopeNode> openTests = ConcurrentHashMap.newKeySet();

    final RecorderOptions options;
    private final Redactor redactor;
    private final RunOpening opening;
    final Papers papers;
    private final LogKeeping logs;
    private final Descriptions descriptions;
    private final LastWord lastWord;
    final ExchangeKeeping exchanges;

    private FileRecorder(RecorderOptions options, List<String> problemsSoFar) throws IOException {
        this.options = options;
        this.redactor = Redactors.of(options, problemsSoFar);
        this.opening = RunOpening.open(options, minutes.clock, Version.text(), redactor);
        this.shortening = new Shortening(redactor);
        this.failures = FailureReading.withInstalledReaders(minutes.problems, guard.foreign, shortening);
        this.papers = new Papers(this, new PaperStore(opening.folder(), redactor, minutes.problems));
        this.logs = new LogKeeping(this, options.logging());
        this.descriptions = new Descriptions(this, options.linkPatterns());
        this.lastWord = new LastWord(this, options.closingLine());
        this.exchanges = new ExchangeKeeping(this, minutes.problems);
        Rehearsal.of(opening.journal(), redactor, failures); // before the first real event, and before a shutdown
        minutes.open(opening.journal(), opening.again());
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
    public boolean isSecretName(@Nullable String name) {
        return name != null && guard.get(Task.SECRET, true, seat -> redactor.isSecretName(name));
    }

    @Override
    public Scope run() {
        return run;
    }

    @Override
    public Scope here() {
        return hereNow();
    }

    /** The scope of this thread, for callers that stand outside the border. */
    private ScopeNode hereNow() {
        try {
            return here(guard.seat());
        } catch (StackOverflowError tooDeep) {
            guard.lost++;
            return run;
        }
    }

    @Override
    public Scope startContainer(Scope in, Identity who) {
        return guard.get(Task.CONTAINER_STARTED, run, seat -> {
            ScopeNode outer = node(in);
            Supplier<List<String>> folder = () -> List.of("tests", ScopeFolders.ofClass(masked(who)), "class");
            var container =
                    new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, false, folder), seat.here);
            seat.here = container;
            minutes.begins(
                    container,
                    new ContainerStarted(
                            minutes.clock.micros(),
                            container.id(),
                            outer.id(),
                            text(who.key()),
                            name(who.name()),
                            who.className(),
                            who.methodName()));
            return container;
        });
    }

    @Override
    public void endContainer(Scope container, Ending ending, int notRun) {
        ScopeNode node = node(container);
        Ending how = ending == null ? Ending.passed() : ending;
        if (how.failure() != null) takeEvidenceIn(node, how.failure());
        evidence.ends(node);
        endExchanges(node);
        guard.run(Task.CONTAINER_ENDED, seat -> {
            if (!endsOnce(node, "container")) return;
            node.leave(seat);
            Event end = new ContainerEnded(
                    minutes.clock.micros(),
                    node.id(),
                    outcome(how),
                    reason(how),
                    failure(node, how),
                    Math.max(0, notRun));
            wrote(node, how.failure(), end);
        });
    }

    @Override
    public Scope startTest(Scope in, Identity who) {
        return guard.get(Task.TEST_STARTED, run, seat -> {
            ScopeNode outer = node(in);
            Supplier<List<String>> folder = () -> {
                Identity masked = masked(who);
                return List.of("tests", ScopeFolders.ofClass(masked), ScopeFolders.ofTest(masked));
            };
            var test = new ScopeNode(ids.incrementAndGet(), outer, new Owner(outer.owner, true, folder), seat.here);
            seat.here = test;
            openTests.add(test);
            minutes.begins(
                    test,
                    new TestStarted(
                            minutes.clock.micros(),
                            test.id(),
                            outer.id(),
                            text(who.key()),
                            name(who.name()),
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
                redactor.redacted(text(who.key())),
                redactor.redacted(name(who.name())),
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
        Ending how = ending == null ? Ending.passed() : ending;
        if (how.failure() != null && how.outcome() != Outcome.EXPECTED) takeEvidenceIn(node, how.failure());
        evidence.ends(node);
        endExchanges(node);
        guard.run(Task.TEST_ENDED, seat -> {
            if (!endsOnce(node, "test")) return;
            openTests.remove(node);
            logs.sayWhatWasLeftOut(node);
            node.leave(seat);
            Outcome outcome = outcome(how);
            lastWord.ended(node, outcome);
            Event end = new TestEnded(minutes.clock.micros(), node.id(), outcome, reason(how), failure(node, how));
            wrote(node, how.failure(), end);
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

    private Step startStep(@Nullable StepKind kind, @Nullable String name, boolean beside) {
        try {
            Seat seat = guard.seat();
            if (seat.recording) return DisabledRecorder.NO_STEP; // by a log line that storing another one caused
            ScopeNode outer = here(seat);
            if (outer == run) lastWord.outsideTests();
            int id = ids.incrementAndGet();
            OpenStep step =
                    beside ? new BesideStep(this, id, outer, seat.here) : new OpenStep(this, id, outer, seat.here);
            if (!beside) seat.here = step;
            guard.run(
                    Task.STEP_STARTED,
                    step,
                    kind == null ? StepKind.ACTION : kind,
                    name == null ? "null" : name,
                    FileRecorder::stepStarts);
            return step;
        } catch (StackOverflowError | OutOfMemoryError gone) {
            guard.lost++;
            return DisabledRecorder.NO_STEP;
        }
    }

    private static void stepStarts(OpenStep step, Seat seat, StepKind kind, @Nullable String name) {
        FileRecorder self = step.recorder;
        ScopeNode outer = step.outer == null ? self.run : step.outer;
        self.minutes.begins(
                step,
                new StepStarted(
                        self.minutes.clock.micros(),
                        step.id(),
                        outer.id(),
                        kind,
                        self.name(name),
                        self.strayThread(step.before, outer)));
    }

    void endStep(OpenStep step, Outcome outcome, @Nullable Failure failure) {
        guard.run(Task.STEP_ENDED, step, outcome, failure, FileRecorder::stepEnds);
    }

    private static void stepEnds(OpenStep step, Seat seat, Outcome outcome, @Nullable Failure failure) {
        step.recorder.stepEnds(step, seat, outcome, null, failure);
    }

    private boolean stepEnds(
            OpenStep step, Seat seat, Outcome outcome, @Nullable String reason, @Nullable Failure failure) {
        if (!endsOnce(step, "step")) return false;
        if (!step.isBeside() && !step.leave(seat))
            minutes.problems.add(
                    "A step was ended on another thread than began it, or after a step around it, on thread "
                            + Thread.currentThread().getName());
        long now = minutes.clock.micros();
        long at = step.endsAt() == 0 ? now : Math.min(step.endsAt(), now);
        return minutes.append(step, new StepEnded(at, step.id(), outcome, reason, failure));
    }

    void skipStep(OpenStep step, @Nullable String reason) {
        guard.run(Task.STEP_ENDED, seat -> stepEnds(step, seat, Outcome.SKIPPED, shown(step, reason), null));
    }

    void budgetStep(OpenStep step, Duration budget) {
        guard.run(Task.STEP_BUDGETED, seat -> {
            long micros = Math.max(1, micros(budget));
            minutes.append(step, new StepBudgeted(minutes.clock.micros(), step.id(), micros));
        });
    }

    void failStep(OpenStep step, Throwable thrown) {
        boolean first = takeEvidenceIn(step, thrown);
        guard.run(Task.STEP_FAILED, seat -> {
            Outcome outcome = failures.outcome(thrown);
            if (!first) stepEnds(step, seat, outcome, null, null);
            else {
                Failure told = failure(step, thrown);
                if (stepEnds(step, seat, outcome, null, told)) step.owner.wrote(thrown, told.id());
            }
        });
    }

    void endWithoutEvidence(OpenStep step, Throwable thrown) {
        guard.run(Task.STEP_FAILED, seat -> {
            Failure told = failure(step, thrown);
            if (stepEnds(step, seat, failures.outcome(thrown), null, told)) step.owner.wrote(thrown, told.id());
        });
    }

    @Override
    public Stay enter(Scope scope) {
        try {
            Seat seat = guard.seat();
            ScopeNode before = seat.here;
            ScopeNode node = node(scope);
            if (node == run || (before != null && before.isWithin(node))) return DisabledRecorder.NO_STAY;
            seat.here = node;
            return () -> seat.here = before;
        } catch (StackOverflowError | OutOfMemoryError gone) {
            guard.lost++;
            return DisabledRecorder.NO_STAY;
        }
    }

    @Override
    public void takeEvidence(Throwable failure) {
        if (failure != null) takeEvidenceIn(hereNow(), failure);
    }

    /** Whether this failure was not seen before. */
    private boolean takeEvidenceIn(ScopeNode scope, Throwable failure) {
        boolean first = guard.get(Task.EVIDENCE, false, seat -> scope.owner.seesFirst(failure, guard.foreign));
        if (first
                && guard.get(
                        Task.EVIDENCE, false, seat -> failures.outcome(failure).needsAttention()))
            evidence.take(scope, failure);
        return first;
    }

    @Override
    public void announce(EvidenceSource source) {
        guard.run(Task.EVIDENCE, seat -> {
            if (source == null) minutes.problems.add("null was announced as a source of evidence");
            else here(seat).owner.announce(source);
        });
    }

    @Override
    public void secret(String value) {
        guard.run(Task.SECRET, seat -> redactor.announce(text(value)));
    }

    @Override
    public void gatherChecks() {
        guard.run(Task.CHECK, seat -> here(seat).owner.checks = new GatheredChecks());
    }

    @Override
    public @Nullable ChecksFailed failedChecks() {
        GatheredChecks checks = hereNow().owner.checks;
        if (checks == null) return null;
        var all = new AtomicReference<@Nullable ChecksFailed>();
        guard.run(Task.CHECK, seat -> all.set(checks.all(guard.foreign)));
        return all.get();
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return checkedIn(hereNow(), name, failure, 0);
    }

    /** Whether its failure is gathered. */
    boolean checkedIn(ScopeNode here, @Nullable String name, @Nullable Throwable failure, int exchange) {
        writeCheck(here, name, failure, exchange);
        GatheredChecks checks = here.owner.checks;
        if (failure == null || checks == null) return false;
        return guard.get(Task.CHECK, false, seat -> {
            checks.add(String.valueOf(name), failure);
            return true;
        });
    }

    @Override
    public void observed(String name, Throwable failure) {
        if (failure != null) writeCheck(hereNow(), name, failure, 0);
    }

    private void writeCheck(ScopeNode here, @Nullable String name, @Nullable Throwable failure, int exchange) {
        if (failure != null) takeEvidenceIn(here, failure);
        guard.run(Task.CHECK, seat -> {
            Outcome outcome = failure == null ? Outcome.PASSED : failures.outcome(failure);
            Failure told = failure == null ? null : failure(here, failure);
            long at = minutes.clock.micros();
            wrote(here, failure, told, new CheckMade(at, here.id(), name(name), outcome, told, exchange));
        });
    }

    @Override
    public void describe(Description description) {
        guard.run(Task.DESCRIPTION, seat -> descriptions.write(here(seat), description));
    }

    @Override
    public void note(String text) {
        guard.run(Task.NOTE, this, text == null ? "null" : text, null, FileRecorder::noteHere);
    }

    private void noteHere(Seat seat, String text, @Nullable Void nothing) {
        noteNow(seat, here(seat), text);
    }

    @Override
    public void note(String text, @Nullable Object @Nullable [] values) {
        guard.run(Task.NOTE, this, text == null ? "null" : text, values, FileRecorder::noteWith);
    }

    private void noteWith(Seat seat, String text, @Nullable Object @Nullable [] values) {
        Pieces filled = NoteText.of(guard.foreign, text, values);
        ScopeNode scope = here(seat);
        write(seat, scope, LongText.shown(this, scope, filled));
    }

    void noteIn(ScopeNode scope, String text) {
        guard.run(Task.NOTE, seat -> noteNow(seat, scope, text));
    }

    private void noteNow(Seat seat, ScopeNode scope, String text) {
        write(seat, scope, shown(scope, text));
    }

    private void write(Seat seat, ScopeNode scope, String shown) {
        if (scope == run) lastWord.outsideTests();
        minutes.append(
                scope, new NoteWritten(minutes.clock.micros(), scope.id(), shown, strayThread(seat.here, scope)));
    }

    /** A short text as it is, of a long one the beginning; all of it is a paper then. */
    private String shown(ScopeNode scope, @Nullable String text) {
        String given = text(text);
        return given.length() <= LongText.LONGEST ? given : LongText.shown(this, scope, new Pieces().add(given));
    }

    @Override
    public Exchange exchange(String method, String url) {
        Exchange exchange = guard.get(Task.EXCHANGE, NoExchange.NONE, seat -> {
            ScopeNode scope = here(seat);
            return new OpenExchange(this, scope, strayThread(seat.here, scope), text(method), text(url));
        });
        if (exchange instanceof OpenExchange begun) begun.begins();
        return exchange;
    }

    /** What was asked in there and is not answered to its end is written as far as it is known. */
    private static void endExchanges(ScopeNode node) {
        for (OpenExchange open : node.owner.openExchanges()) open.ownerEnded();
    }

    void endExchangesOfTheRun() {
        endExchanges(run);
    }

    @Override
    public Exchange exchange(Scope in, String method, String url) {
        return guard.get(Task.EXCHANGE, NoExchange.NONE, seat -> {
            ScopeNode scope = node(in);
            String thread = scope.owner.isTest ? null : Thread.currentThread().getName();
            return new OpenExchange(this, scope, thread, text(method), text(url));
        });
    }

    @Override
    public void log(LogLine line) {
        guard.run(Task.LOG, logs, line, null, LogKeeping::keep);
    }

    @Override
    public void log(Supplier<LogLine> line) {
        guard.run(Task.LOG, logs, line, null, LogKeeping::keepAsked);
    }

    @Override
    public void data(String name, @Nullable Object value) {
        guard.run(Task.DATA, seat -> {
            ScopeNode here = here(seat);
            String shown = shown(here, shown(name, value));
            minutes.append(here, new DataNamed(minutes.clock.micros(), here.id(), name(name), shown));
        });
    }

    @Override
    public void fact(String name, @Nullable Object value) {
        guard.run(Task.FACT, seat -> {
            String text = shown(run, shown(name, value));
            if (text.equals(facts.put(name(name), text))) return; // set-up code states it for each test
            minutes.append(run, new FactStated(minutes.clock.micros(), name(name), text));
        });
    }

    String redacted(String text) {
        return redactor.redacted(text);
    }

    boolean hasSecretName(String name) {
        return redactor.isSecretName(name);
    }

    String shown(@Nullable String name, @Nullable Object value) {
        return name != null && redactor.isSecretName(name) ? MASK : guard.foreign.text(value);
    }

    @Override
    public void attach(String name, byte[] content, String mediaType) {
        papers.attach(name, content, mediaType);
    }

    @Override
    public void attach(String name, InputStream content, String mediaType) {
        papers.attach(name, () -> content, mediaType);
    }

    @Override
    public void attach(String name, ContentSource content, String mediaType) {
        papers.attach(name, content, mediaType);
    }

    @Override
    public void attach(Path file) {
        papers.attach(file, false);
    }

    @Override
    public void attachMoved(Path file) {
        papers.attach(file, true);
    }

    @Override
    public void paper(Scope in, String name, String kind, InputStream content, String mediaType, long begins) {
        papers.paper(node(in), name, kind, content, mediaType, begins);
    }

    @Override
    public Scope owner() {
        return hereNow().ofOwner();
    }

    @Override
    public long now() {
        return minutes.clock.micros();
    }

    @Override
    public String shortened(String text, int most) {
        String given = text(text);
        int longest = Math.max(1, most);
        if (given.length() <= longest) return given;
        return guard.get(Task.SECRET, MASK, seat -> shortening.cut(given, longest));
    }

    @Override
    public String setting(String key, String otherwise, List<String> allowed) {
        String value = key == null ? null : options.adapters().get(key);
        if (value == null || value.isEmpty()) return otherwise;
        if (allowed == null || allowed.isEmpty() || allowed.contains(value)) return value;
        minutes.problems.add(
                key + ": '" + value + "' is none of " + String.join(", ", allowed) + ". Using " + otherwise + ".");
        return otherwise;
    }

    @Override
    public PromisedPaper promise(String name, String kind) {
        return papers.promise(null, name, kind);
    }

    /** Keeps what {@code content} gives, inside the border. */
    void keep(
            ScopeNode scope, String name, String kind, InputStream content, String mediaType, int promise, long begins)
            throws IOException {
        papers.keep(scope, name, kind, content, mediaType, promise, begins);
    }

    @Override
    public void sessionEnded() {
        lastWord.sessionEnded();
    }

    /** The JVM ends: whatever is still recorded after this is kept too, only behind the journal's last word. */
    void end() {
        lastWord.end();
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

    /** A token of a recorder that was switched off, or of nobody, is the run's. */
    ScopeNode node(@Nullable Scope scope) {
        return scope instanceof ScopeNode node ? node : run;
    }

    ScopeNode runNode() {
        return run;
    }

    private Outcome outcome(Ending ending) {
        if (ending.outcome() != null) return ending.outcome();
        return ending.failure() == null ? Outcome.PASSED : failures.outcome(ending.failure());
    }

    private @Nullable String reason(Ending ending) {
        String reason = ending.reason();
        if (reason == null && ending.failure() != null && outcome(ending) == Outcome.ABORTED)
            reason = guard.foreign.message(ending.failure());
        return reason == null ? null : shortening.cut(reason, LongText.LONGEST);
    }

    private @Nullable Failure failure(ScopeNode node, Ending ending) {
        return ending.failure() == null ? null : failure(node, ending.failure());
    }

    /** The whole of it, or where it stands already; long texts of it are papers. */
    Failure failure(ScopeNode scope, Throwable thrown) {
        int known = scope.owner.written(thrown);
        if (known != 0) return Failure.reference(known);
        return shortened(scope, failures.failure(thrown, ids.incrementAndGet(), scope.owner::written));
    }

    private Failure shortened(ScopeNode scope, Failure one) {
        return new Failure(
                one.id(),
                one.type(),
                shortened(scope, "failure message", one.message(), LongText.LONGEST),
                one.stack(),
                shortened(scope, "expected value", one.expected(), LONGEST_VALUE),
                shortened(scope, "actual value", one.actual(), LONGEST_VALUE),
                one.gathered().stream().map(inner -> shortened(scope, inner)).toList());
    }

    private @Nullable String shortened(ScopeNode scope, String name, @Nullable String text, int longest) {
        return text == null ? null : LongText.shown(this, scope, name, new Pieces().add(text), longest);
    }

    private void wrote(ScopeNode scope, @Nullable Throwable thrown, Event event) {
        Failure told = event instanceof TestEnded test
                ? test.failure()
                : event instanceof ContainerEnded container ? container.failure() : null;
        wrote(scope, thrown, told, event);
    }

    /** Writes {@code event}, in which {@code thrown} is told; from now on it is known where that stands. */
    private void wrote(ScopeNode scope, @Nullable Throwable thrown, @Nullable Failure told, Event event) {
        if (minutes.append(scope, event) && thrown != null && told != null) scope.owner.wrote(thrown, told.id());
    }

    static long micros(Duration duration) {
        long seconds = Math.max(0, Math.min(duration.getSeconds(), LONGEST_SECONDS));
        return seconds * 1_000_000 + duration.getNano() / 1_000;
    }

    /** A year; what is longer than that is a mistake, and readers refuse it. */
    private static final long LONGEST_SECONDS = 366L * 86_400;

    static String text(@Nullable String text) {
        return text == null ? "null" : text;
    }

    String name(@Nullable String name) {
        return shortening.cut(text(name), LONGEST_NAME);
    }
}
