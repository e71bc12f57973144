package dev.verbale.engine.lifecycle;

import dev.verbale.Scope;
import dev.verbale.engine.evidence.EvidenceCollector;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.log.LogRecorder;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.Failure;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestIdentified;
import dev.verbale.event.TestStarted;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Begins and ends containers and tests. */
public final class LifecycleRecorder {

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final Failures failures;
    private final EvidenceCollector evidence;
    private final LogRecorder logs;
    private final Totals totals;
    private final AtomicInteger openContainers = new AtomicInteger();

    public LifecycleRecorder(
            Parts parts, Failures failures, EvidenceCollector evidence, LogRecorder logs, Totals totals) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.failures = failures;
        this.evidence = evidence;
        this.logs = logs;
        this.totals = totals;
    }

    public Scope startContainer(@Nullable Scope in, TestDescriptor who) {
        return guard.get(Task.CONTAINER_STARTED, scopes.run(), context -> {
            ScopeNode outer = scopes.node(in);
            return begins(scopes.container(outer, context, folderOf(who)), outer, who);
        });
    }

    public Scope startSharedContainer(@Nullable Scope in, TestDescriptor who) {
        return guard.get(Task.CONTAINER_STARTED, scopes.run(), context -> {
            ScopeNode outer = scopes.node(in);
            return begins(scopes.sharedContainer(outer, folderOf(who)), outer, who);
        });
    }

    private Supplier<List<String>> folderOf(TestDescriptor container) {
        return () -> List.of("tests", ScopeFolders.ofClass(masked(container)), "class");
    }

    /** Whether a container began that has not ended: frameworks end all of them before they are done. */
    public boolean hasOpenContainers() {
        return openContainers.get() > 0;
    }

    private ScopeNode begins(ScopeNode container, ScopeNode outer, TestDescriptor who) {
        openContainers.incrementAndGet();
        journal.begins(
                container,
                new ContainerStarted(
                        journal.now(),
                        container.id(),
                        outer.id(),
                        Texts.text(who.key()),
                        texts.name(who.name()),
                        who.className(),
                        who.methodName()));
        return container;
    }

    public void endContainer(@Nullable Scope container, @Nullable TestEnd given, int notRun) {
        ScopeNode node = scopes.node(container);
        TestEnd end = given == null ? TestEnd.passed() : given;
        if (end.failure() != null) evidence.capture(node, end.failure());
        evidence.ends(node);
        node.state.endOpen();
        guard.run(Task.CONTAINER_ENDED, context -> {
            if (!endsOnce(node, "container")) return;
            openContainers.decrementAndGet();
            node.leave(context);
            Outcome outcome = outcome(end);
            if (node.start instanceof ContainerStarted start) totals.addClass(start.key(), outcome);
            Failure failure = failures.ofOrNull(node, end);
            var event = new ContainerEnded(at(end), node.id(), outcome, reason(end), failure, Math.max(0, notRun));
            failures.append(node, event, end.failure(), failure);
        });
    }

    public Scope startTest(@Nullable Scope in, TestDescriptor who) {
        return guard.get(Task.TEST_STARTED, scopes.run(), context -> {
            ScopeNode outer = scopes.node(in);
            Supplier<List<String>> folder = () -> {
                TestDescriptor masked = masked(who);
                return List.of("tests", ScopeFolders.ofClass(masked), ScopeFolders.ofTest(masked));
            };
            ScopeNode test = scopes.test(outer, context, folder);
            journal.begins(
                    test,
                    new TestStarted(
                            journal.now(),
                            test.id(),
                            outer.id(),
                            Texts.text(who.key()),
                            texts.name(who.name()),
                            who.className(),
                            who.methodName(),
                            Thread.currentThread().getName(),
                            who.tags(),
                            who.source()));
            totals.began(test.id(), Texts.text(who.key()));
            return test;
        });
    }

    public void identifyTest(@Nullable Scope test, TestDescriptor who) {
        ScopeNode node = scopes.node(test);
        guard.run(Task.TEST_IDENTIFIED, context -> {
            if (!(node.start instanceof TestStarted start) || node.hasEnded()) return;
            String key = Texts.text(who.key());
            String name = texts.name(who.name());
            if (start.key().equals(key) && start.name().equals(name)) return;
            totals.began(node.id(), key);
            node.start = start.as(key, name); // that is what a journal begun anew says of it
            journal.append(node, new TestIdentified(journal.now(), node.id(), key, name));
        });
    }

    /** For names of folders, in which a secret could not be found any more once it lost its odd characters. */
    private TestDescriptor masked(TestDescriptor who) {
        return TestDescriptor.of(texts.redacted(Texts.text(who.key())), texts.redacted(texts.name(who.name())))
                .className(texts.redactedOrNull(who.className()))
                .methodName(texts.redactedOrNull(who.methodName()))
                .source(texts.redactedOrNull(who.source()))
                .build();
    }

    public void endTest(@Nullable Scope test, @Nullable TestEnd given) {
        ScopeNode node = scopes.node(test);
        TestEnd end = expectedOr(given == null ? TestEnd.passed() : given, node);
        if (end.failure() != null && !Outcome.EXPECTED_FAILURE.equals(end.outcome()))
            evidence.capture(node, end.failure());
        evidence.ends(node);
        node.state.endOpen();
        guard.run(Task.TEST_ENDED, context -> {
            if (!endsOnce(node, "test")) return;
            scopes.testEnded(node);
            logs.sayWhatWasLeftOut(node);
            node.leave(context);
            Outcome outcome = outcome(end);
            long now = at(end);
            if (node.start instanceof TestStarted start) totals.ended(node.id(), start.key(), outcome, start.at(), now);
            Failure failure = failures.ofOrNull(node, end);
            var event = new TestEnded(now, node.id(), outcome, reason(end), failure, end.blockedBy());
            failures.append(node, event, end.failure(), failure);
        });
    }

    public void failedAsExpected(ScopeNode current, @Nullable String reason, @Nullable Throwable thrown) {
        if (current.state.isTest && thrown != null)
            current.state.expected = TestEnd.expectedFailure(Texts.text(reason), thrown);
    }

    private static TestEnd expectedOr(TestEnd end, ScopeNode test) {
        TestEnd expected = test.state.expected;
        if (expected == null || !Outcome.PASSED.equals(end.outcome())) return end;
        return end.at() == null ? expected : expected.at(end.at());
    }

    private boolean endsOnce(ScopeNode node, String what) {
        if (node == scopes.run()) return false; // its start was a problem, and that is said already
        if (node.endsNow()) return true;
        journal.problems()
                .add("A " + what + " was ended a second time on thread "
                        + Thread.currentThread().getName());
        return false;
    }

    private long at(TestEnd end) {
        long now = journal.now();
        return end.at() == null ? now : Math.max(0, Math.min(now, end.at()));
    }

    private Outcome outcome(TestEnd end) {
        if (end.outcome() != null) return end.outcome();
        return end.failure() == null ? Outcome.PASSED : failures.outcome(end.failure());
    }

    private @Nullable String reason(TestEnd end) {
        String reason = end.reason();
        if (reason == null && end.failure() != null && outcome(end).equals(Outcome.ABORTED))
            reason = guard.userCode().message(end.failure());
        return texts.cutOrNull(reason, Texts.LONGEST);
    }
}
