package dev.verbale.internal;

import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;

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
        public void note(String text) {
            recorder.noteIn(scope, text);
        }
    }
}
