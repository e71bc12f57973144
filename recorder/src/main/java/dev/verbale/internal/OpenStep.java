package dev.verbale.internal;

import dev.verbale.event.Outcome;
import dev.verbale.recorder.Step;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** A step that has begun; its own scope, so that a step costs one object, and a small one. */
class OpenStep extends ScopeNode implements Step {

    private static final long serialVersionUID = 1;

    final transient FileRecorder recorder;

    OpenStep(FileRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before) {
        super(id, outer, outer.owner, before);
        this.recorder = recorder;
    }

    /** Whether it stands beside what is recorded while it lasts, and is nobody's scope. */
    boolean isBeside() {
        return false;
    }

    /** When it ended, where that was before it is told; 0 where it is now. */
    long endsAt() {
        return 0;
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
        return this; // it ends when its thread says so
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
