package dev.verbale.internal;

import dev.verbale.ChecksFailed;
import dev.verbale.event.StepKind;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.ContentSource;
import dev.verbale.recorder.Description;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.LogLine;
import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.recorder.Step;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Records nothing: recording is switched off, or could not begin. */
final class DisabledRecorder implements Recorder {

    static final Step NO_STEP = new Step() {
        @Override
        public void passed() {}

        @Override
        public void failed(Throwable failure) {}

        @Override
        public void failedWithoutEvidence(Throwable failure) {}

        @Override
        public void skipped(String reason) {}

        @Override
        public Step at(long micros) {
            return this;
        }

        @Override
        public Step within(Duration budget) {
            return this;
        }

        @Override
        public void close() {}
    };

    /** The only one there has to be. */
    static final DisabledRecorder NONE = new DisabledRecorder();

    static final PromisedPaper NO_PROMISE = new PromisedPaper() {
        @Override
        public void keep(InputStream content, String mediaType) {}

        @Override
        public void keep(Path file, long begins) {}
    };

    private static final Scope NOWHERE = () -> 0;
    static final Stay NO_STAY = () -> {};

    private DisabledRecorder() {}

    @Override
    public boolean isRecording() {
        return false;
    }

    @Override
    public Scope run() {
        return NOWHERE;
    }

    @Override
    public Scope here() {
        return NOWHERE;
    }

    @Override
    public Scope startContainer(Scope in, Identity identity) {
        return NOWHERE;
    }

    @Override
    public void endContainer(Scope container, Ending ending, int notRun) {}

    @Override
    public Scope startTest(Scope in, Identity identity) {
        return NOWHERE;
    }

    @Override
    public void endTest(Scope test, Ending ending) {}

    @Override
    public Step startStep(StepKind kind, String name) {
        return NO_STEP;
    }

    @Override
    public Step startStepBeside(StepKind kind, String name) {
        return NO_STEP;
    }

    @Override
    public Stay enter(Scope scope) {
        return NO_STAY;
    }

    @Override
    public void takeEvidence(Throwable failure) {}

    @Override
    public void announce(EvidenceSource source) {}

    @Override
    public void secret(String value) {}

    @Override
    public void gatherChecks() {}

    @Override
    public @Nullable ChecksFailed failedChecks() {
        return null;
    }

    /** Gathers nothing: without minutes a failed check fails its test at once. */
    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return false;
    }

    @Override
    public void observed(String name, Throwable failure) {}

    @Override
    public void describe(Description description) {}

    @Override
    public Exchange exchange(String method, String url) {
        return NoExchange.NONE;
    }

    @Override
    public Exchange exchange(Scope in, String method, String url) {
        return NoExchange.NONE;
    }

    @Override
    public void log(LogLine line) {}

    @Override
    public void log(Supplier<LogLine> line) {}

    @Override
    public boolean isSecretName(@Nullable String name) {
        return false;
    }

    @Override
    public void note(String text) {}

    @Override
    public void note(String text, @Nullable Object @Nullable [] values) {}

    @Override
    public void data(String name, @Nullable Object value) {}

    @Override
    public void fact(String name, @Nullable Object value) {}

    @Override
    public void attach(String name, byte[] content, String mediaType) {}

    @Override
    public void attach(String name, InputStream content, String mediaType) {}

    @Override
    public void attach(String name, ContentSource content, String mediaType) {}

    @Override
    public void attach(Path file) {}

    @Override
    public void attachMoved(Path file) {}

    @Override
    public PromisedPaper promise(String name, String kind) {
        return NO_PROMISE;
    }

    @Override
    public void paper(Scope in, String name, String kind, InputStream content, String mediaType, long begins) {}

    @Override
    public Scope owner() {
        return NOWHERE;
    }

    @Override
    public @Nullable Path folder() {
        return null;
    }

    @Override
    public long now() {
        return 0;
    }

    @Override
    public String shortened(String text, int most) {
        return text == null || text.length() <= most ? String.valueOf(text) : text.substring(0, Math.max(0, most));
    }

    @Override
    public String setting(String key, String otherwise, List<String> allowed) {
        return otherwise;
    }

    @Override
    public void sessionEnded() {}
}
