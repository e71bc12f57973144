package dev.verbale.spi;

import dev.verbale.Recorder;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.border.LostCalls;
import java.util.Optional;

/**
 * All that a recorder does. An adapter asks for the part that it needs: {@link TestLifecycle}, {@link Capture} or
 * {@link Context}; this is for whoever needs several.
 *
 * <pre>{@code
 * AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults().withRun("nightly"));
 * }</pre>
 *
 * @since 0.2.0
 */
public interface AdapterRecorder extends Recorder, TestLifecycle, Capture, Context {

    /** The recorder of this JVM. The first call opens it; with recording switched off it is one that does nothing. */
    static AdapterRecorder current() {
        try {
            return of(Recorder.current());
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError broken) {
            LostCalls.count++; // what it would have been asked for now is missing
            return NoRecorder.NONE;
        }
    }

    /** The recorder of this JVM where a call has opened it; asking leaves no empty run behind. */
    static Optional<AdapterRecorder> currentIfOpen() {
        Optional<Recorder> open = Recorder.currentIfOpen();
        return open.isEmpty() ? Optional.empty() : Optional.of(of(open.get()));
    }

    /** One beside that of this JVM, see {@link Recorder#open}. */
    static AdapterRecorder open(RecorderOptions options) {
        return of(Recorder.open(options));
    }

    /** One that records nothing. */
    static AdapterRecorder none() {
        return NoRecorder.NONE;
    }

    /** What {@code recorder} does for adapters; one that records nothing where it is nobody's that we know. */
    static AdapterRecorder of(Recorder recorder) {
        return recorder instanceof AdapterRecorder known ? known : NoRecorder.NONE;
    }

    /** Also an author's call and an adapter's. */
    @Override
    boolean isRecording();

    /** Also a lifecycle's question. */
    @Override
    Scope run();

    /** Also an author's call. */
    @Override
    AdapterExchange exchange(String method, String url);
}
