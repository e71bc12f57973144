package dev.verbale.engine;

import dev.verbale.CarriedTask;
import dev.verbale.ChecksFailed;
import dev.verbale.ContentSource;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.Recorder;
import dev.verbale.RecorderOptions;
import dev.verbale.Registration;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.border.ShownValue;
import dev.verbale.border.ThreadStop;
import dev.verbale.engine.attachment.AttachmentStore;
import dev.verbale.engine.attachment.Attachments;
import dev.verbale.engine.attachment.LongTexts;
import dev.verbale.engine.check.CheckRecorder;
import dev.verbale.engine.evidence.EvidenceCollector;
import dev.verbale.engine.exchange.ExchangeRecorder;
import dev.verbale.engine.exchange.ExchangeSettings;
import dev.verbale.engine.failure.FailureReader;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.lifecycle.AboutRecorder;
import dev.verbale.engine.lifecycle.LifecycleRecorder;
import dev.verbale.engine.lifecycle.Totals;
import dev.verbale.engine.lifecycle.UnrecordedTests;
import dev.verbale.engine.log.LogRecorder;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.run.RunOpening;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.scope.ThreadContext;
import dev.verbale.engine.settings.Redactors;
import dev.verbale.engine.settings.SettingValues;
import dev.verbale.engine.step.StepRecorder;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.DataNamed;
import dev.verbale.event.FactStated;
import dev.verbale.secrets.Redactor;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.spi.Entered;
import dev.verbale.spi.LogLine;
import dev.verbale.spi.Setting;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.io.IOException;
import java.io.InputStream;
import java.lang.System.Logger.Level;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Records into a run folder. It puts the parts of the engine together, and hands each call to the one that does it: what stands
 * here itself are the shortest events.
 */
final class FileRecorder implements AdapterRecorder {

    private final RunJournal journal = new RunJournal();
    private final Guard guard;
    private final Set<String> claims = ConcurrentHashMap.newKeySet();
    private final Map<String, String> facts = new ConcurrentHashMap<>();

    private final RunOpening opening;
    private final Redactor redactor;
    private final SettingValues settings;
    private final Scopes scopes;
    private final Texts texts;
    private final Attachments attachments;
    private final LongTexts longTexts;
    private final LogRecorder logs;
    private final EvidenceCollector evidence;
    private final StepRecorder steps;
    private final CheckRecorder checks;
    private final ExchangeRecorder exchanges;
    private final AboutRecorder abouts;
    private final LifecycleRecorder lifecycle;
    private final RunSummary summary;
    private final RunEnd end;
    private final RunListeners listeners;

    /**
     * Opens a recorder with a journal of its own.
     *
     * @param adapters those that are there
     * @throws IOException where the run folder or the journal cannot be made
     */
    FileRecorder(RecorderOptions options, InstalledAdapters adapters, List<String> problemsSoFar) throws IOException {
        guard = new Guard(journal, adapters.bodyThreads());
        redactor = Redactors.of(options, problemsSoFar);
        opening = RunOpening.open(options, journal.clock(), adapters.libraries(), redactor);
        settings = new SettingValues(options.settings(), journal.problems());
        scopes = new Scopes(options.adoptOrphans());
        texts = new Texts(redactor, guard.userCode());
        var parts = new Parts(guard, journal, scopes, texts);
        var store = new AttachmentStore(opening.folder(), redactor, journal.problems());
        attachments = new Attachments(parts, store);
        longTexts = new LongTexts(attachments, journal, texts.shortener());
        FailureReader reader =
                FailureReader.withInstalledReaders(journal.problems(), guard.userCode(), texts.shortener());
        var failures = new Failures(reader, longTexts, journal, scopes);
        var totals = new Totals();
        var unrecorded = new UnrecordedTests(journal, totals, claims);
        logs = new LogRecorder(parts, longTexts, failures, options.logging(), unrecorded);
        evidence =
                new EvidenceCollector(guard, scopes, failures, attachments, logs, journal.problems(), journal.clock());
        steps = new StepRecorder(parts, longTexts, failures, evidence, unrecorded);
        checks = new CheckRecorder(parts, longTexts, failures, evidence);
        exchanges = new ExchangeRecorder(
                parts,
                checks,
                attachments,
                ExchangeSettings.of(settings),
                options.logging().charactersALine());
        abouts = new AboutRecorder(parts, options.linkPatterns());
        lifecycle = new LifecycleRecorder(parts, failures, evidence, logs, totals);
        summary = new RunSummary(guard, journal, opening.folder().path(), totals, unrecorded, options.summaryLine());
        end = new RunEnd(
                guard, journal, scopes, attachments, summary, () -> lifecycle.hasOpenContainers() && !claims.isEmpty());
        listeners = new RunListeners(journal.problems());
        journal.open(opening.journal(), opening.again());
        problemsSoFar.forEach(journal.problems());
    }

    /** From now on those listeners hear of this run that are installed. */
    void listen() {
        listeners.open(this);
    }

    /** The JVM ends. */
    void end() {
        end.end();
        listeners.end(this);
    }

    // What is asked.

    @Override
    public boolean isRecording() {
        return true;
    }

    @Override
    public Path folder() {
        return opening.folder().path();
    }

    @Override
    public Scope run() {
        return scopes.run();
    }

    @Override
    public Scope currentScope() {
        return current();
    }

    @Override
    public Scope currentTest() {
        return current().ofState();
    }

    @Override
    public boolean isInTest() {
        return current().state.isTest;
    }

    /** The scope of this thread, for callers that stand outside the border. */
    private ScopeNode current() {
        try {
            return scopes.current(guard.context());
        } catch (StackOverflowError tooDeep) {
            guard.lost++;
            return scopes.run();
        }
    }

    @Override
    public Entered enter(Scope scope) {
        try {
            var context = guard.context();
            ScopeNode before = context.current;
            ScopeNode node = scopes.node(scope);
            if (node == scopes.run() || (before != null && before.isWithin(node))) return Entered.NOWHERE;
            context.current = node;
            return new Left(context, before);
        } catch (StackOverflowError | OutOfMemoryError gone) {
            guard.lost++;
            return Entered.NOWHERE;
        }
    }

    /** Not a lambda: where the stack ends while one is linked, the JVM throws what means that it is broken itself. */
    private record Left(ThreadContext context, @Nullable ScopeNode before) implements Entered {
        @Override
        public void close() {
            context.current = before;
        }
    }

    @Override
    public long now() {
        return journal.now();
    }

    @Override
    public String setting(Setting setting) {
        return setting == null ? "" : settings.of(setting);
    }

    @Override
    public boolean isSecretName(@Nullable String name) {
        return name != null && guard.get(Task.SECRET, true, context -> texts.isSecretName(name));
    }

    @Override
    public String shortened(String text, int limit) {
        String given = Texts.text(text);
        int longest = Math.max(1, limit);
        if (given.length() <= longest) return given;
        return guard.get(Task.SECRET, Recorder.MASK, context -> texts.cut(given, longest));
    }

    @Override
    public String shown(@Nullable Object value, int limit) {
        return shortened(guard.userCode().text(value), limit);
    }

    @Override
    public void safely(String doing, Runnable work) {
        try {
            work.run();
        } catch (Throwable broken) {
            ThreadStop.goesOn(broken);
            journal.problems().add(doing + ": " + ShownValue.of(broken));
        }
    }

    // The lifecycle of tests. An InternalError is what the JVM throws where the stack ends while it links a lambda.

    @Override
    public Scope startContainer(Scope in, TestDescriptor descriptor) {
        try {
            return lifecycle.startContainer(in, descriptor);
        } catch (StackOverflowError | InternalError full) {
            guard.lost++;
            return scopes.run();
        }
    }

    @Override
    public Scope startSharedContainer(Scope in, TestDescriptor descriptor) {
        return lifecycle.startSharedContainer(in, descriptor);
    }

    @Override
    public void identifyTest(Scope test, TestDescriptor descriptor) {
        lifecycle.identifyTest(test, descriptor);
    }

    @Override
    public void failedAsExpected(String reason, Throwable thrown) {
        lifecycle.failedAsExpected(current(), reason, thrown);
    }

    @Override
    public void claim(String engine) {
        if (engine != null) claims.add(engine);
    }

    @Override
    public boolean hasClaims() {
        return !claims.isEmpty();
    }

    @Override
    public boolean isClaimed(String engine) {
        return engine != null && claims.contains(engine);
    }

    @Override
    public void endContainer(Scope container, TestEnd how, int notRun) {
        try {
            lifecycle.endContainer(container, how, notRun);
        } catch (StackOverflowError | InternalError full) {
            guard.lost++;
        }
    }

    @Override
    public Scope startTest(Scope in, TestDescriptor descriptor) {
        try {
            return lifecycle.startTest(in, descriptor);
        } catch (StackOverflowError | InternalError full) {
            guard.lost++;
            return scopes.run();
        }
    }

    @Override
    public void endTest(Scope test, TestEnd how) {
        try {
            lifecycle.endTest(test, how);
        } catch (StackOverflowError | InternalError full) {
            guard.lost++;
        }
    }

    @Override
    public void gatherChecks() {
        checks.gather();
    }

    @Override
    public @Nullable ChecksFailed failedChecks() {
        return checks.failed(current());
    }

    @Override
    public void sessionEnded() {
        summary.sessionEnded();
    }

    // What happens.

    @Override
    public Step startStep(String name) {
        return steps.start(StepKind.ACTION, name, null, false);
    }

    @Override
    public AdapterStep startStep(StepKind kind, String name) {
        return steps.start(kind, name, null, false);
    }

    @Override
    public AdapterStep startStep(StepKind kind, String name, StepArgument argument) {
        return steps.start(kind, name, argument, false);
    }

    @Override
    public AdapterStep startOverlappingStep(StepKind kind, String name) {
        return steps.start(kind, name, null, true);
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return checks.checked(current(), name, failure, 0);
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure, @Nullable Object actual) {
        return checks.checkedValue(current(), name, failure, actual);
    }

    @Override
    public void checkFailed(String name, Throwable failure) {
        if (failure != null) checks.write(current(), name, failure, 0);
    }

    @Override
    public void captureEvidence(Throwable failure) {
        if (failure != null) evidence.capture(current(), failure);
    }

    @Override
    public Registration register(EvidenceSource source) {
        return evidence.register(source);
    }

    @Override
    public void about(String text) {
        abouts.text(text);
    }

    @Override
    public void about(About about) {
        abouts.about(about);
    }

    @Override
    public void link(String name) {
        abouts.link(name);
    }

    @Override
    public AdapterExchange exchange(String method, String url) {
        return exchanges.begin(method, url);
    }

    @Override
    public AdapterExchange exchange(Scope in, String method, String url) {
        return exchanges.begin(scopes.node(in), method, url);
    }

    @Override
    public void log(LogLine line) {
        logs.keep(line);
    }

    @Override
    public void log(Supplier<LogLine> line) {
        logs.keep(line);
    }

    @Override
    public void log(String text) {
        logs.log(text);
    }

    @Override
    public void log(String text, @Nullable Object @Nullable [] values) {
        logs.log(text, values);
    }

    @Override
    public void log(@Nullable Level level, String text, @Nullable Object @Nullable [] values) {
        logs.log(level, text, values);
    }

    @Override
    public void data(String name, @Nullable Object value) {
        guard.run(Task.DATA, context -> {
            ScopeNode scope = scopes.current(context);
            String shown = longTexts.shown(scope, texts.value(name, value));
            journal.append(scope, new DataNamed(journal.now(), scope.id(), texts.name(name), shown));
        });
    }

    @Override
    public void fact(String name, @Nullable Object value) {
        guard.run(Task.FACT, context -> {
            ScopeNode run = scopes.run();
            String text = longTexts.shown(run, texts.value(name, value));
            if (text.equals(facts.put(texts.name(name), text))) return; // set-up code states it for each test
            journal.append(run, new FactStated(journal.now(), texts.name(name), text));
        });
    }

    @Override
    public void secret(String value) {
        guard.run(Task.SECRET, context -> redactor.add(Texts.text(value)));
    }

    // Attachments.

    @Override
    public void attach(String name, byte[] content, MediaType type) {
        attachments.attach(name, content, type);
    }

    @Override
    public void attach(String name, InputStream content, MediaType type) {
        attachments.attach(name, () -> content, type);
    }

    @Override
    public void attach(String name, ContentSource content, MediaType type) {
        attachments.attach(name, content, type);
    }

    @Override
    public void attach(Path file) {
        attachments.attach(file, false);
    }

    @Override
    public void attachMoved(Path file) {
        attachments.attach(file, true);
    }

    @Override
    public void attach(Scope in, String name, String kind, InputStream content, MediaType type, long begins) {
        attachments.attach(scopes.node(in), name, kind, content, type, begins);
    }

    @Override
    public PendingAttachment attachLater(String name) {
        return attachments.attachLater(null, name, null);
    }

    @Override
    public PendingAttachment attachLater(String name, String kind) {
        return attachments.attachLater(null, name, kind);
    }

    // Other threads.

    @Override
    public Runnable carry(Runnable work) {
        return Carried.runnable(this, work);
    }

    @Override
    public <T extends @Nullable Object> CarriedTask<T> carry(Callable<T> work) {
        return Carried.task(this, work);
    }

    @Override
    public ExecutorService carry(ExecutorService executor) {
        return Carried.executor(this, executor);
    }
}
