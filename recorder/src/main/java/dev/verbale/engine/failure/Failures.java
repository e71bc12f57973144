package dev.verbale.engine.failure;

import dev.verbale.engine.attachment.LongTexts;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Pieces;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.Event;
import dev.verbale.event.Failure;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Failures on their way into the journal: each throwable is written down once, and its long texts are attachments. */
public final class Failures {

    /** Of what an assertion expected and got: a reader compares them, and more than this nobody does by eye. */
    private static final int LONGEST_VALUE = 100_000;

    private final FailureReader reader;
    private final LongTexts longTexts;
    private final RunJournal journal;
    private final Scopes scopes;

    public Failures(FailureReader reader, LongTexts longTexts, RunJournal journal, Scopes scopes) {
        this.reader = reader;
        this.longTexts = longTexts;
        this.journal = journal;
        this.scopes = scopes;
    }

    /** What {@code thrown} means for what threw it. */
    public Outcome outcome(Throwable thrown) {
        return reader.outcome(thrown);
    }

    /** The whole of it, or where it stands already. */
    public Failure of(ScopeNode scope, Throwable thrown) {
        return of(scope, thrown, List.of());
    }

    private Failure of(ScopeNode scope, Throwable thrown, List<? extends Throwable> others) {
        int known = scope.state.written(thrown);
        if (known == 0) return shortened(scope, reader.failure(thrown, scopes.nextId(), scope.state::written, others));
        if (others.isEmpty()) return Failure.reference(known);
        List<Failure> after = reader.others(others, scope.state::written).stream()
                .map(one -> shortened(scope, one))
                .toList();
        return Failure.of("", "").id(known).gathered(after).build();
    }

    /** Of all that was thrown in {@code end}; null where nothing was. */
    public @Nullable Failure ofOrNull(ScopeNode scope, TestEnd end) {
        return end.failure() == null ? null : of(scope, end.failure(), end.others());
    }

    /** Null where nothing was thrown. */
    public @Nullable Failure ofOrNull(ScopeNode scope, @Nullable Throwable thrown) {
        return thrown == null ? null : of(scope, thrown);
    }

    /**
     * Writes {@code event}, in which {@code thrown} is written as {@code written}; from now on it is known where that stands.
     *
     * @return whether it was written
     */
    public boolean append(ScopeNode scope, Event event, @Nullable Throwable thrown, @Nullable Failure written) {
        if (!journal.append(scope, event)) return false;
        if (thrown != null && written != null) scope.state.wrote(thrown, written.id());
        return true;
    }

    private Failure shortened(ScopeNode scope, Failure one) {
        return new Failure(
                one.id(),
                one.type(),
                shortened(scope, "failure message", one.message(), Texts.LONGEST),
                one.stack(),
                shortened(scope, "expected value", one.expected(), LONGEST_VALUE),
                shortened(scope, "actual value", one.actual(), LONGEST_VALUE),
                one.gathered().stream().map(inner -> shortened(scope, inner)).toList());
    }

    private @Nullable String shortened(ScopeNode scope, String name, @Nullable String text, int longest) {
        return text == null ? null : longTexts.shown(scope, name, new Pieces().add(text), longest);
    }
}
