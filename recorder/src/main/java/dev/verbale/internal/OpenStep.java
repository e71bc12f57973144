package dev.verbale.internal;

import dev.verbale.event.Outcome;
import dev.verbale.recorder.Step;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** A step that has begun; its own scope, so that a step costs one object. */
final class OpenStep extends ScopeNode implements Step {

    private static final long serialVersionUID = 1;

    final transient FileRecorder recorder;

    /** It is nobody's scope. */
    final transient boolean beside;

    OpenStep(FileRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before, boolean beside) {
        super(id, outer, outer.owner, before);
        this.recorder = recorder;
        this.beside = beside;
    }

    @Override
    public void passed() {
        recorder.endStep(this, Outcome.PASSED, null);
    }

    @Override
    public void failed(@Nullable Throwable failure) {
        recorder.failStep(this, failure == null ? new IllegalStateException("no throwable was given") : failure);
    }

    @Override
    public void failedWithoutEvidence(Throwable failure) {
        recorder.endStep(this, recorder.failures.outcome(failure), null);
    }

    @Override
    public void skipped(String reason) {
        recorder.skipStep(this, reason);
    }

    @Override
    public Step within(Duration budget) {
        recorder.budgetStep(this, budget);
        return this;
    }

    @Override
    public void close() {
        if (!hasEnded()) recorder.endStep(this, Outcome.UNFINISHED, null);
    }
}
