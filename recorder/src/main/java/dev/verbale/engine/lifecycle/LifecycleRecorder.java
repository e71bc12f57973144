package dev.verbale.engine.lifecycle;

import dev.verbale.Scope;
import dev.verbale.engine.evidence.EvidenceCollector;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.log.LogRecorder;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.util.List;
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

    public LifecycleRecorder(
            Guard guard,
            RunJournal journal,
            Scopes scopes,
            Texts texts,
            Failures failures,
            EvidenceCollector evidence,
            LogRecorder logs,
            Totals totals) {
        this.guard = guard;
        this.journal = journal;
        this.scopes = scopes;
        this.texts = texts;
        this.failures = failures;
        this.evidence = evidence;
        this.logs = logs;
        this.totals = totals;
    }

    public Scope startContainer(@Nullable Scope in, TestDescriptor who) {
        return guard.get(Task.CONTAINER_STARTED, scopes.run(), context -> {
            ScopeNode outer = scopes.node(in);
            Supplier<List<String>> folder = () -> List.of("tests", ScopeFolders.ofClass(masked(who)), "class");
            ScopeNode container = scopes.container(outer, context, folder);
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
        });
    }

    public void endContainer(@Nullable Scope container, @Nullable TestEnd given, int notRun) {
        ScopeNode node = scopes.node(container);
        TestEnd end = given == null ? TestEnd.passed() : given;
        if (end.failure() != null) evidence.capture(node, end.failure());
        evidence.ends(node);
        node.state.endOpen();
        guard.run(Task.CONTAINER_ENDED, context -> {
            if (!endsOnce(node, "container")) return;
            node.leave(context);
            Failure failure = failures.ofOrNull(node, end.failure());
            var event = new ContainerEnded(
                    journal.now(), node.id(), outcome(end), reason(end), failure, Math.max(0, notRun));
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
                            who.tags()));
            return test;
        });
    }

    /** For names of folders, in which a secret could not be found any more once it lost its odd characters. */
    private TestDescriptor masked(TestDescriptor who) {
        return new TestDescriptor(
                texts.redacted(Texts.text(who.key())),
                texts.redacted(texts.name(who.name())),
                texts.redactedOrNull(who.className()),
                texts.redactedOrNull(who.methodName()),
                List.of());
    }

    public void endTest(@Nullable Scope test, @Nullable TestEnd given) {
        ScopeNode node = scopes.node(test);
        TestEnd end = given == null ? TestEnd.passed() : given;
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
            totals.add(node.start instanceof TestStarted start ? start.key() : String.valueOf(node.id()), outcome);
            Failure failure = failures.ofOrNull(node, end.failure());
            var event = new TestEnded(journal.now(), node.id(), outcome, reason(end), failure);
            failures.append(node, event, end.failure(), failure);
        });
    }

    private boolean endsOnce(ScopeNode node, String what) {
        if (node == scopes.run()) return false; // its start was a problem, and that is said already
        if (node.endsNow()) return true;
        journal.problems()
                .add("A " + what + " was ended a second time on thread "
                        + Thread.currentThread().getName());
        return false;
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
