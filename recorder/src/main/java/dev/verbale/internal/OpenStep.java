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

    /** When it ended, where that was before it is told; 0 where it is now. */
    transient long endsAt;

    OpenStep(FileRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before, boolean beside) {
        super(id, outer, outer.owner, before);
        this.recorder = recorder;
        this.beside = beside;
    }

    @Override
    public void passed() {
        try {
            recorder.endStep(this, Outcome.PASSED, null);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void failed(@Nullable Throwable failure) {
        try {
            recorder.failStep(this, failure == null ? new IllegalStateException("no throwable was given") : failure);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void failedWithoutEvidence(@Nullable Throwable failure) {
        try {
            recorder.endWithoutEvidence(
                    this, failure == null ? new IllegalStateException("no throwable was given") : failure);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void skipped(@Nullable String reason) {
        try {
            recorder.skipStep(this, reason);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public Step at(long micros) {
        endsAt = Math.max(0, micros);
        return this;
    }

    @Override
    public Step within(Duration budget) {
        try {
            recorder.budgetStep(this, budget);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
        return this;
    }

    @Override
    public void close() {
        try {
            if (!hasEnded()) recorder.endStep(this, Outcome.UNFINISHED, null);
        } catch (StackOverflowError tooDeep) {
            recorder.guard.lost++;
        }
    }
}
