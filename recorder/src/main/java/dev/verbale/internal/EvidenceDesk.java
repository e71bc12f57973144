package dev.verbale.internal;

import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.PromisedPaper;

/** Asks the sources when something fails. */
final class EvidenceDesk {

    private final FileRecorder recorder;

    EvidenceDesk(FileRecorder recorder) {
        this.recorder = recorder;
    }

    /** Asks every source of {@code scope}, on this thread; one that throws is noted and the others are still asked. */
    void take(ScopeNode scope) {
        for (EvidenceSource source : scope.owner.sourcesToAsk()) {
            try {
                source.take(new Taken(scope));
            } catch (Throwable none) {
                Guard.rethrowFatal(none);
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
                Guard.rethrowFatal(broken);
                recorder.minutes.problems.add("ending the evidence of " + name(source), broken);
            }
        }
    }

    private static String name(EvidenceSource source) {
        try {
            return source.name();
        } catch (RuntimeException broken) {
            return source.getClass().getName();
        }
    }

    private final class Taken implements Evidence {
        private final ScopeNode scope;

        Taken(ScopeNode scope) {
            this.scope = scope;
        }

        @Override
        public void paper(String name, String kind, byte[] content, String mediaType) {
            recorder.keepIn(scope, name, kind, content, mediaType);
        }

        @Override
        public PromisedPaper promise(String name, String kind) {
            return recorder.promiseIn(scope, name, kind);
        }

        @Override
        public void note(String text) {
            recorder.noteIn(scope, text);
        }
    }
}
