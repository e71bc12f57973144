package dev.verbale.internal;

import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.PromisedPaper;
import java.io.ByteArrayInputStream;
import java.io.InputStream;

/** Asks the sources when something fails. */
final class EvidenceDesk {

    private final FileRecorder recorder;

    EvidenceDesk(FileRecorder recorder) {
        this.recorder = recorder;
    }

    /** Asks every source of {@code scope}, on this thread; one that throws is noted and the others are still asked. */
    void take(ScopeNode scope, Throwable failure) {
        for (EvidenceSource source : scope.owner.sourcesToAsk()) {
            try {
                source.take(new Taken(scope, failure));
            } catch (Throwable none) {
                Stopped.goesOn(none);
                if (none instanceof InterruptedException) Thread.currentThread().interrupt();
                recorder.noteIn(scope, "No evidence from " + name(source) + ": " + NoteText.shown(none));
            }
        }
    }

    /** Tells the sources that were announced to {@code node} itself that it ends now. */
    void ends(ScopeNode node) {
        for (EvidenceSource source : node.owner.sources) {
            try {
                source.ended(node);
            } catch (Throwable broken) {
                Stopped.goesOn(broken);
                recorder.minutes.problems.add("ending the evidence of " + name(source) + ": " + NoteText.shown(broken));
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

    private final class Taken implements Evidence {
        private final ScopeNode scope;
        private final Throwable failure;

        Taken(ScopeNode scope, Throwable failure) {
            this.scope = scope;
            this.failure = failure;
        }

        @Override
        public Throwable failure() {
            return failure;
        }

        @Override
        public void paper(String name, String kind, byte[] content, String mediaType) {
            InputStream stream = content == null ? null : new ByteArrayInputStream(content);
            recorder.papers.paper(scope, name, kind, stream, mediaType, 0);
        }

        @Override
        public PromisedPaper promise(String name, String kind) {
            return recorder.papers.promise(scope, name, kind);
        }

        @Override
        public void note(String text) {
            recorder.noteIn(scope, text);
        }
    }
}
