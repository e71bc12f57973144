package dev.verbale.engine.step;

import dev.verbale.engine.attachment.LongTexts;
import dev.verbale.engine.evidence.EvidenceCollector;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.MonotonicClock;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.scope.ThreadContext;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.Failure;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.spi.AdapterStep;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** Begins steps, and writes down how they end. */
public final class StepRecorder {

    final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final LongTexts longTexts;
    private final Failures failures;
    private final EvidenceCollector evidence;
    private final Runnable outsideTests;
    private final StepArguments arguments;

    /** @param outsideTests called for each step that belongs to no test */
    public StepRecorder(
            Parts parts, LongTexts longTexts, Failures failures, EvidenceCollector evidence, Runnable outsideTests) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.arguments = new StepArguments(texts);
        this.longTexts = longTexts;
        this.failures = failures;
        this.evidence = evidence;
        this.outsideTests = outsideTests;
    }

    /** @param overlaps whether it stands beside what is recorded while it lasts, and is nobody's scope */
    public AdapterStep start(
            @Nullable StepKind kind, @Nullable String name, @Nullable StepArgument argument, boolean overlaps) {
        try {
            ThreadContext context = guard.context();
            if (context.recording) return AdapterStep.NONE; // by a log line that storing another one caused
            ScopeNode outer = scopes.current(context);
            if (outer == scopes.run()) outsideTests.run();
            int id = scopes.nextId();
            OpenStep step = overlaps
                    ? new OverlappingStep(this, id, outer, context.current)
                    : new OpenStep(this, id, outer, context.current);
            if (!overlaps) context.current = step;
            StepKind known = kind == null ? StepKind.ACTION : kind;
            if (argument == null) guard.run(Task.STEP_STARTED, step, known, Texts.text(name), StepRecorder::starts);
            else guard.run(Task.STEP_STARTED, inner -> starts(step, known, name, arguments.shown(argument)));
            return step;
        } catch (StackOverflowError | OutOfMemoryError | InternalError gone) {
            guard.lost++;
            return AdapterStep.NONE;
        }
    }

    private static void starts(OpenStep step, ThreadContext context, StepKind kind, @Nullable String name) {
        starts(step, kind, name, null);
    }

    private static void starts(OpenStep step, StepKind kind, @Nullable String name, @Nullable StepArgument argument) {
        StepRecorder self = step.recorder;
        ScopeNode outer = step.outer == null ? self.scopes.run() : step.outer;
        self.journal.begins(
                step,
                new StepStarted(
                        self.journal.now(),
                        step.id(),
                        outer.id(),
                        kind,
                        self.texts.name(name),
                        self.scopes.orphanThread(step.before, outer),
                        argument));
    }

    void end(OpenStep step, Outcome outcome) {
        guard.run(Task.STEP_ENDED, step, outcome, null, StepRecorder::endsPlainly);
    }

    private static void endsPlainly(OpenStep step, ThreadContext context, Outcome outcome, @Nullable Void nothing) {
        step.recorder.ends(step, context, outcome, null, null);
    }

    /** Whether it was written. */
    private boolean ends(
            OpenStep step, ThreadContext context, Outcome outcome, @Nullable String reason, @Nullable Failure failure) {
        if (!step.endsNow()) {
            journal.problems()
                    .add("A step was ended a second time on thread "
                            + Thread.currentThread().getName());
            return false;
        }
        if (!step.overlaps() && !step.leave(context))
            journal.problems()
                    .add("A step was ended on another thread than began it, or after a step around it, on thread "
                            + Thread.currentThread().getName());
        long now = journal.now();
        long at = step.endsAt() == 0 ? now : Math.min(step.endsAt(), now);
        return journal.append(step, new StepEnded(at, step.id(), outcome, reason, failure));
    }

    void skip(OpenStep step, @Nullable String reason) {
        guard.run(
                Task.STEP_ENDED, context -> ends(step, context, Outcome.SKIPPED, longTexts.shown(step, reason), null));
    }

    void budget(OpenStep step, Duration budget) {
        guard.run(Task.STEP_BUDGETED, context -> {
            long micros = Math.max(1, MonotonicClock.micros(budget));
            journal.append(step, new StepBudgeted(journal.now(), step.id(), micros));
        });
    }

    void fail(OpenStep step, Throwable thrown) {
        boolean first = evidence.capture(step, thrown);
        if (first) failWithoutEvidence(step, thrown);
        else guard.run(Task.STEP_FAILED, context -> ends(step, context, failures.outcome(thrown), null, null));
    }

    void failWithoutEvidence(OpenStep step, Throwable thrown) {
        guard.run(Task.STEP_FAILED, context -> {
            Failure written = failures.of(step, thrown);
            if (ends(step, context, failures.outcome(thrown), null, written)) step.state.wrote(thrown, written.id());
        });
    }
}
