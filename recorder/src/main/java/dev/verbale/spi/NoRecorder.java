package dev.verbale.spi;

import dev.verbale.CarriedTask;
import dev.verbale.ChecksFailed;
import dev.verbale.ContentSource;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.Registration;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.io.InputStream;
import java.lang.System.Logger.Level;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Records nothing: recording is switched off, or could not begin. */
final class NoRecorder implements AdapterRecorder {

    /** The only one there has to be. */
    static final NoRecorder NONE = new NoRecorder();

    private NoRecorder() {}

    @Override
    public boolean isRecording() {
        return false;
    }

    @Override
    public Scope run() {
        return Scope.NONE;
    }

    @Override
    public Scope currentScope() {
        return Scope.NONE;
    }

    @Override
    public Scope currentTest() {
        return Scope.NONE;
    }

    @Override
    public Scope startContainer(Scope in, TestDescriptor descriptor) {
        return Scope.NONE;
    }

    @Override
    public Scope startSharedContainer(Scope in, TestDescriptor descriptor) {
        return Scope.NONE;
    }

    @Override
    public void identifyTest(Scope test, TestDescriptor descriptor) {}

    @Override
    public boolean isInTest() {
        return false;
    }

    @Override
    public void failedAsExpected(String reason, Throwable thrown) {}

    @Override
    public void claim(String engine) {}

    @Override
    public String shown(@Nullable Object value, int limit) {
        return "";
    }

    @Override
    public void safely(String doing, Runnable work) {}

    @Override
    public boolean hasClaims() {
        return false;
    }

    @Override
    public boolean isClaimed(String engine) {
        return false;
    }

    @Override
    public void endContainer(Scope container, TestEnd end, int notRun) {}

    @Override
    public Scope startTest(Scope in, TestDescriptor descriptor) {
        return Scope.NONE;
    }

    @Override
    public void endTest(Scope test, TestEnd end) {}

    @Override
    public Step startStep(String name) {
        return Step.NONE;
    }

    @Override
    public AdapterStep startStep(StepKind kind, String name) {
        return AdapterStep.NONE;
    }

    @Override
    public AdapterStep startStep(StepKind kind, String name, StepArgument argument) {
        return AdapterStep.NONE;
    }

    @Override
    public AdapterStep startOverlappingStep(StepKind kind, String name) {
        return AdapterStep.NONE;
    }

    @Override
    public Entered enter(Scope scope) {
        return Entered.NOWHERE;
    }

    @Override
    public void captureEvidence(Throwable failure) {}

    @Override
    public Registration register(EvidenceSource source) {
        return Registration.NONE;
    }

    @Override
    public void secret(String value) {}

    @Override
    public void gatherChecks() {}

    @Override
    public @Nullable ChecksFailed failedChecks() {
        return null;
    }

    /** Gathers nothing: where nothing is recorded a failed check fails its test at once. */
    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return false;
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure, @Nullable Object actual) {
        return false;
    }

    @Override
    public void checkFailed(String name, Throwable failure) {}

    @Override
    public void about(String text) {}

    @Override
    public void about(About about) {}

    @Override
    public void link(String name) {}

    @Override
    public AdapterExchange exchange(String method, String url) {
        return AdapterExchange.NONE;
    }

    @Override
    public AdapterExchange exchange(Scope in, String method, String url) {
        return AdapterExchange.NONE;
    }

    @Override
    public void log(LogLine line) {}

    @Override
    public void log(Supplier<LogLine> line) {}

    @Override
    public void log(String text) {}

    @Override
    public void log(String text, @Nullable Object @Nullable [] values) {}

    @Override
    public void log(@Nullable Level level, String text, @Nullable Object @Nullable [] values) {}

    @Override
    public void data(String name, @Nullable Object value) {}

    @Override
    public void fact(String name, @Nullable Object value) {}

    @Override
    public void attach(String name, byte[] content, MediaType type) {}

    @Override
    public void attach(String name, InputStream content, MediaType type) {}

    @Override
    public void attach(String name, ContentSource content, MediaType type) {}

    @Override
    public void attach(Path file) {}

    @Override
    public void attachMoved(Path file) {}

    @Override
    public void attach(Scope in, String name, String kind, InputStream content, MediaType type, long begins) {}

    @Override
    public PendingAttachment attachLater(String name) {
        return PendingAttachment.NONE;
    }

    @Override
    public PendingAttachment attachLater(String name, String kind) {
        return PendingAttachment.NONE;
    }

    @Override
    public Runnable carry(Runnable work) {
        return work;
    }

    @Override
    public <T extends @Nullable Object> CarriedTask<T> carry(Callable<T> work) {
        return new PlainTask<>(work);
    }

    @Override
    public ExecutorService carry(ExecutorService executor) {
        return executor;
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
    public String setting(Setting setting) {
        return setting == null ? "" : setting.fallback();
    }

    @Override
    public boolean isSecretName(@Nullable String name) {
        return false;
    }

    @Override
    public String shortened(String text, int limit) {
        return text == null || text.length() <= limit ? String.valueOf(text) : text.substring(0, Math.max(0, limit));
    }

    @Override
    public void sessionEnded() {}

    /** Runs where it is asked to, in no scope. */
    private record PlainTask<T extends @Nullable Object>(Callable<T> work) implements CarriedTask<T> {
        @Override
        public T call() throws Exception {
            return work.call();
        }

        @Override
        public T get() {
            return CarriedTask.unchecked(work);
        }
    }
}
