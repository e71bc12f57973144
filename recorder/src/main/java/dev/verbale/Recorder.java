package dev.verbale;

import dev.verbale.border.Engine;
import dev.verbale.secrets.Redactor;
import dev.verbale.vocabulary.About;
import java.io.InputStream;
import java.lang.System.Logger.Level;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import org.jspecify.annotations.Nullable;

/**
 * Records a run: what {@link Verbale} calls, as an object. Adapters use {@code dev.verbale.spi} besides. Implemented by Verbale
 * only.
 *
 * <p>What is current is a scope of the calling thread: the innermost test, container or step that was started on it and
 * has not ended. No call throws.
 *
 * <pre>{@code
 * Recorder recorder = Recorder.current();
 * if (recorder.isRecording()) recorder.attach("plan", () -> gate.log(), MediaType.TEXT);
 * }</pre>
 *
 * @since 0.2.0
 */
public interface Recorder {

    /** What stands in the place of a secret. */
    String MASK = Redactor.MASK;

    /** The recorder of this JVM. The first call opens it; with recording switched off it is one that does nothing. */
    static Recorder current() {
        return Engine.<Recorder, RecorderOptions>loaded().current();
    }

    /** The recorder of this JVM where a call has opened it; asking leaves no empty run behind. */
    static Optional<Recorder> currentIfOpen() {
        try {
            return Engine.<Recorder, RecorderOptions>loaded().currentIfOpen();
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError unloaded) {
            return Optional.empty(); // so none is open
        }
    }

    /**
     * A recorder beside that one, with a journal of its own. Where its folder cannot be made, one warning says why and
     * the result records nothing.
     */
    static Recorder open(RecorderOptions options) {
        return Engine.<Recorder, RecorderOptions>loaded().open(options);
    }

    /** Whether calls leave anything behind. Ask before doing work that only serves recording. */
    boolean isRecording();

    /** A step begins in the scope of this thread, and becomes its scope. */
    Step startStep(String name);

    /**
     * Records a check, with evidence where it failed.
     *
     * @return whether its failure is gathered; where it is not, the caller has to throw it
     */
    boolean checked(String name, @Nullable Throwable failure);

    /**
     * Records a check of a value, with evidence where it failed.
     *
     * @param actual the value that was found
     * @return whether its failure is gathered; where it is not, the caller has to throw it
     */
    boolean checked(String name, @Nullable Throwable failure, @Nullable Object actual);

    /** Logs a line as it is. */
    void log(String text);

    /** @see Verbale#log(String, Object...) */
    void log(String text, @Nullable Object @Nullable [] values);

    /** @see Verbale#log(Level, String, Object...) */
    void log(@Nullable Level level, String text, @Nullable Object @Nullable [] values);

    /** @see Verbale#data */
    void data(String name, @Nullable Object value);

    /** @see Verbale#fact */
    void fact(String name, @Nullable Object value);

    /** @see Verbale#about(String) */
    void about(String text);

    /** @see Verbale#about(About) */
    void about(About about);

    /** @see Verbale#link */
    void link(String name);

    /** @see Verbale#secret */
    void secret(String value);

    /** @see Verbale#register */
    Registration register(EvidenceSource source);

    /** @see Verbale#attach(String, byte[], MediaType) */
    void attach(String name, byte[] content, MediaType type);

    /** @see Verbale#attach(String, InputStream, MediaType) */
    void attach(String name, InputStream content, MediaType type);

    /**
     * Attaches what {@code content} gives when it is asked, which is before this returns, and where it does no harm whatever it
     * throws.
     */
    void attach(String name, ContentSource content, MediaType type);

    /** @see Verbale#attach(Path) */
    void attach(Path file);

    /** @see Verbale#attachMoved */
    void attachMoved(Path file);

    /** @see Verbale#attachLater */
    PendingAttachment attachLater(String name);

    /** @see Verbale#exchange */
    Exchange exchange(String method, String url);

    /** @see Verbale#carry(Runnable) */
    Runnable carry(Runnable work);

    /** @see Verbale#carry(Callable) */
    <T extends @Nullable Object> CarriedTask<T> carry(Callable<T> work);

    /** @see Verbale#carry(ExecutorService) */
    ExecutorService carry(ExecutorService executor);
}
