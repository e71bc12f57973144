package dev.verbale.engine.check;

import dev.verbale.ChecksFailed;
import dev.verbale.engine.attachment.LongTexts;
import dev.verbale.engine.evidence.EvidenceCollector;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.GatheredChecks;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.CheckMade;
import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/** Writes checks down, and gathers those that failed where somebody will throw them. */
public final class CheckRecorder {

    private final Guard guard;
    private final RunJournal journal;
    private final Scopes scopes;
    private final Texts texts;
    private final LongTexts longTexts;
    private final Failures failures;
    private final EvidenceCollector evidence;

    public CheckRecorder(Parts parts, LongTexts longTexts, Failures failures, EvidenceCollector evidence) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.longTexts = longTexts;
        this.failures = failures;
        this.evidence = evidence;
    }

    /** From now on failed checks of this thread's test are gathered. */
    public void gather() {
        guard.run(Task.CHECK, context -> scopes.current(context).state.checks = new GatheredChecks());
    }

    /** The checks that failed so far in the test of {@code scope}; null where there is none. */
    public @Nullable ChecksFailed failed(ScopeNode scope) {
        GatheredChecks checks = scope.state.checks;
        if (checks == null) return null;
        var all = new AtomicReference<@Nullable ChecksFailed>();
        guard.run(
                Task.CHECK,
                context -> all.set(guard.userCode().<@Nullable ChecksFailed>asked(checks::all, broken -> null)));
        return all.get();
    }

    /**
     * Writes a check down.
     *
     * @param exchange the id of the one whose response was checked, or 0
     * @return whether its failure is gathered
     */
    public boolean checked(ScopeNode scope, @Nullable String name, @Nullable Throwable failure, int exchange) {
        write(scope, name, failure, exchange);
        return gathered(scope, name, failure);
    }

    /**
     * Writes a check of a value down. What was found is kept of one that passed; of one that failed its failure has it.
     *
     * @return whether its failure is gathered
     */
    public boolean checkedValue(
            ScopeNode scope, @Nullable String name, @Nullable Throwable failure, @Nullable Object actual) {
        if (failure != null) return checked(scope, name, failure, 0);
        guard.run(Task.CHECK, context -> {
            String found = longTexts.shown(scope, texts.value(name, actual));
            var event = CheckMade.of(journal.now(), scope.id(), texts.name(name), Outcome.PASSED);
            journal.append(scope, event.actual(found).build());
        });
        return false;
    }

    private boolean gathered(ScopeNode scope, @Nullable String name, @Nullable Throwable failure) {
        GatheredChecks checks = scope.state.checks;
        if (failure == null || checks == null) return false;
        return guard.get(Task.CHECK, false, context -> {
            checks.add(String.valueOf(name), failure);
            return true;
        });
    }

    /** Writes a check down that somebody else will throw. */
    public void write(ScopeNode scope, @Nullable String name, @Nullable Throwable failure, int exchange) {
        if (failure != null) evidence.capture(scope, failure);
        writeWithoutEvidence(scope, name, failure, exchange);
    }

    /** Writes a check down that somebody else throws into the test, which may catch it. */
    public void writeWithoutEvidence(
            ScopeNode scope, @Nullable String name, @Nullable Throwable failure, int exchange) {
        guard.run(Task.CHECK, context -> {
            Outcome outcome = failure == null ? Outcome.PASSED : failures.outcome(failure);
            Failure written = failures.ofOrNull(scope, failure);
            var event = CheckMade.of(journal.now(), scope.id(), texts.name(name), outcome);
            failures.append(scope, event.failure(written).exchange(exchange).build(), failure, written);
        });
    }
}
