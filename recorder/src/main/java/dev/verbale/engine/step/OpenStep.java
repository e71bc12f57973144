package dev.verbale.engine.step;

import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.spi.AdapterStep;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * A step that has begun; its own scope, so that a step costs one object, and a small one. An InternalError is what the JVM throws
 * where the stack ends while it links a lambda.
 */
class OpenStep extends ScopeNode implements AdapterStep {

    private static final long serialVersionUID = 1;

    public final transient StepRecorder recorder;

    public OpenStep(StepRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before) {
        super(id, outer, outer.state, before);
        this.recorder = recorder;
    }

    /** Whether it stands beside what is recorded while it lasts, and is nobody's scope. */
    public boolean overlaps() {
        return false;
    }

    /** When it ended, where that was before it is recorded; 0 where it is now. */
    public long endsAt() {
        return 0;
    }

    @Override
    public void passed() {
        try {
            recorder.end(this, Outcome.PASSED);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void failed(@Nullable Throwable failure) {
        try {
            recorder.fail(this, failure == null ? new IllegalStateException("no throwable was given") : failure);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void failedWithoutEvidence(@Nullable Throwable failure) {
        try {
            recorder.failWithoutEvidence(
                    this, failure == null ? new IllegalStateException("no throwable was given") : failure);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public void skipped(@Nullable String reason) {
        try {
            recorder.skip(this, reason);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
    }

    @Override
    public AdapterStep at(long micros) {
        return this; // it ends when its thread says so
    }

    @Override
    public AdapterStep within(Duration budget) {
        try {
            recorder.budget(this, budget);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
        return this;
    }

    @Override
    public void close() {
        try {
            if (!hasEnded()) recorder.end(this, Outcome.UNFINISHED);
        } catch (StackOverflowError | InternalError tooDeep) {
            recorder.guard.lost++;
        }
    }
}
