package dev.verbale.internal;

import dev.verbale.recorder.Step;
import org.jspecify.annotations.Nullable;

/** A step that somebody notices: it stands beside what is recorded while it lasts, and its end may be known late. */
final class BesideStep extends OpenStep {

    private static final long serialVersionUID = 1;

    private transient long endsAt;

    BesideStep(FileRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before) {
        super(recorder, id, outer, before);
    }

    @Override
    boolean isBeside() {
        return true;
    }

    @Override
    long endsAt() {
        return endsAt;
    }

    @Override
    public Step at(long micros) {
        endsAt = Math.max(0, micros);
        return this;
    }
}
