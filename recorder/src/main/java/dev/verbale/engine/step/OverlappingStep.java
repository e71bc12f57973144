package dev.verbale.engine.step;

import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.spi.AdapterStep;
import org.jspecify.annotations.Nullable;

/** A step that somebody notices: it stands beside what is recorded while it lasts, and its end may be known late. */
final class OverlappingStep extends OpenStep {

    private static final long serialVersionUID = 1;

    private transient long endsAt;

    public OverlappingStep(StepRecorder recorder, int id, ScopeNode outer, @Nullable ScopeNode before) {
        super(recorder, id, outer, before);
    }

    @Override
    public boolean overlaps() {
        return true;
    }

    @Override
    public long endsAt() {
        return endsAt;
    }

    @Override
    public AdapterStep at(long micros) {
        endsAt = Math.max(0, micros);
        return this;
    }
}
