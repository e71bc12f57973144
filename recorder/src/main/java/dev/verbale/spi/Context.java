package dev.verbale.spi;

import dev.verbale.Scope;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * What adapters ask: where they are, when it is, what was set.
 *
 * <p>Threads: from any; what is current is that of the calling thread. Failure: no call throws.
 *
 * <pre>{@code
 * Context context = Context.current();
 * if (!context.isSecretName("gate")) Verbale.log("the gate is {}", context.shown(gate, 100));
 * }</pre>
 *
 * @since 0.2.0
 */
public interface Context {

    /** The one of this JVM; see {@link AdapterRecorder#current()}. */
    static Context current() {
        return AdapterRecorder.current();
    }

    /** Whether calls leave anything behind. Ask before doing work that only serves recording. */
    boolean isRecording();

    /** The run itself. */
    Scope run();

    /** The scope of this thread. */
    Scope currentScope();

    /** The test that runs on this thread, or the container where none does, or the run. */
    Scope currentTest();

    /** Whether a test runs on this thread. */
    boolean isInTest();

    /**
     * Makes {@code scope} the scope of this thread until the result is closed on the same thread. Where this thread is
     * already in it, or deeper inside, nothing changes.
     */
    Entered enter(Scope scope);

    /** The folder of the run; null where nothing is recorded. What is made in there by somebody else is his to remove. */
    @Nullable
    Path folder();

    /** Microseconds on the clock of this recorder's journal. */
    long now();

    /** What a setting is set to, or its fallback. A value that it does not allow is a problem of the run, said once. */
    String setting(Setting setting);

    /** Whether {@code setting} is set to {@code true}. */
    default boolean isOn(Setting setting) {
        return setting(setting).equals("true");
    }

    /** Whether the value that goes by {@code name} is secret, by the known words and those of the settings. */
    boolean isSecretName(@Nullable String name);

    /**
     * {@code text}, or its first {@code limit} characters and how many more there are. Its secrets are masked before it is
     * cut: half of one would not be known for one later.
     */
    String shortened(String text, int limit);

    /** {@code value} as text, whatever its {@code toString} does, {@link #shortened}. */
    String shown(@Nullable Object value, int limit);

    /**
     * Does an adapter's own work where it does no harm: what it throws is a problem of the run.
     *
     * @param doing what is tried, for that problem
     */
    void safely(String doing, Runnable work);
}
