package dev.verbale.engine.evidence;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.Registration;
import dev.verbale.border.ShownValue;
import dev.verbale.border.ThreadStop;
import dev.verbale.engine.attachment.Attachments;
import dev.verbale.engine.failure.Failures;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.MonotonicClock;
import dev.verbale.engine.journal.Problems;
import dev.verbale.engine.log.LogRecorder;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.ScopeState;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.event.Event;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import org.jspecify.annotations.Nullable;

/** Asks the sources when something fails. */
public final class EvidenceCollector {

    private final Guard guard;
    private final Scopes scopes;
    private final Failures failures;
    private final Attachments attachments;
    private final LogRecorder logs;
    private final Problems problems;
    private final MonotonicClock clock;

    public EvidenceCollector(
            Guard guard,
            Scopes scopes,
            Failures failures,
            Attachments attachments,
            LogRecorder logs,
            Problems problems,
            MonotonicClock clock) {
        this.guard = guard;
        this.scopes = scopes;
        this.failures = failures;
        this.attachments = attachments;
        this.logs = logs;
        this.problems = problems;
        this.clock = clock;
    }

    /** From now on {@code source} is asked in the test, container or run of this thread. */
    public Registration register(@Nullable EvidenceSource source) {
        return guard.get(Task.EVIDENCE, Registration.NONE, context -> {
            if (source == null) {
                problems.add("null was registered as a source of evidence");
                return Registration.NONE;
            }
            ScopeState state = scopes.current(context).state;
            state.register(source);
            return new Registered(guard, state, source);
        });
    }

    /** Not a lambda: where the stack ends while one is linked, the JVM throws what means that it is broken itself. */
    private record Registered(Guard guard, ScopeState state, EvidenceSource source) implements Registration {
        @Override
        public void close() {
            try {
                state.unregister(source);
            } catch (StackOverflowError | OutOfMemoryError gone) {
                guard.lost++;
            }
        }
    }

    /**
     * Captures the evidence of {@code failure}, where somebody has to look at it and nobody did so before.
     *
     * @return whether this failure was not seen before
     */
    public boolean capture(ScopeNode scope, Throwable failure) {
        boolean first =
                guard.get(Task.EVIDENCE, false, context -> scope.state.seesFirst(failure, guard.userCode()::cause));
        if (first
                && guard.get(
                        Task.EVIDENCE,
                        false,
                        context -> failures.outcome(failure).needsAttention())) ask(scope, failure);
        return first;
    }

    /** Asks every source of {@code scope}, on this thread; one that throws is logged and the others are still asked. */
    private void ask(ScopeNode scope, Throwable failure) {
        for (EvidenceSource source : scope.state.sourcesToAsk()) {
            try {
                source.capture(new Captured(scope, failure));
            } catch (Throwable none) {
                ThreadStop.goesOn(none);
                if (none instanceof InterruptedException) Thread.currentThread().interrupt();
                logs.log(scope, "No evidence from " + name(source) + ": " + ShownValue.of(none));
            }
        }
    }

    /** Tells the sources that were registered with {@code node} itself that it ends now. */
    public void ends(ScopeNode node) {
        for (EvidenceSource source : node.state.sources()) {
            try {
                source.ended(node);
            } catch (Throwable broken) {
                ThreadStop.goesOn(broken);
                problems.add("ending the evidence of " + name(source) + ": " + ShownValue.of(broken));
            }
        }
    }

    private static String name(EvidenceSource source) {
        try {
            return String.valueOf(source.name());
        } catch (RuntimeException | Error broken) {
            return source.getClass().getName();
        }
    }

    private final class Captured implements Evidence {
        private final ScopeNode scope;
        private final Throwable failure;

        Captured(ScopeNode scope, Throwable failure) {
            this.scope = scope;
            this.failure = failure;
        }

        @Override
        public Instant began() {
            ScopeNode node = scope;
            while (node.outer != null && node.outer.state == scope.state) node = node.outer;
            Event start = node.start;
            long ago = start == null ? clock.micros() : clock.micros() - start.at();
            return Instant.now().minus(ago, ChronoUnit.MICROS);
        }

        @Override
        public Throwable failure() {
            return failure;
        }

        @Override
        public void attach(String name, String kind, byte[] content, MediaType type) {
            InputStream stream = content == null ? null : new ByteArrayInputStream(content);
            attachments.attach(scope, name, kind, stream, type, 0);
        }

        @Override
        public PendingAttachment attachLater(String name, String kind) {
            return attachments.attachLater(scope, name, kind);
        }

        @Override
        public void log(String text) {
            logs.log(scope, text);
        }

        @Override
        public void log(String writer, String text) {
            logs.log(scope, writer, text);
        }
    }
}
