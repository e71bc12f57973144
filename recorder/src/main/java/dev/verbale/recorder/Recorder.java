package dev.verbale.recorder;

import dev.verbale.ChecksFailed;
import dev.verbale.event.StepKind;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.internal.Recorders;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Takes the minutes of this JVM.
 *
 * <p>What is current is a scope of the calling thread: the innermost test, container or step that was started on it and
 * has not ended. Ending a scope puts back what was there before. No call throws.
 */
public interface Recorder {

    /** What stands in the place of a secret. */
    String MASK = "[masked]";

    /** One that records nothing. */
    static Recorder none() {
        return Recorders.none();
    }

    /** The recorder of this JVM. The first call opens it; with recording switched off it is one that does nothing. */
    static Recorder current() {
        return Recorders.current();
    }

    /** The recorder of this JVM where a call has opened it; asking leaves no empty run behind. */
    static Optional<Recorder> currentIfOpen() {
        return Recorders.currentIfOpen();
    }

    /**
     * A recorder beside that one, with a journal of its own. Where its folder cannot be made, one warning says why and
     * the result records nothing.
     */
    static Recorder open(RecorderOptions options) {
        return Recorders.open(options);
    }

    /** Whether calls leave anything behind. Ask before doing work that only serves the minutes. */
    boolean isRecording();

    /** The run itself. */
    Scope run();

    /** The scope of this thread. */
    Scope here();

    /** A container begins inside {@code in}, and becomes the scope of this thread. */
    Scope startContainer(Scope in, Identity identity);

    /**
     * A container ends.
     *
     * @param notRun how many of its tests were never started because of how it ended
     */
    void endContainer(Scope container, Ending ending, int notRun);

    /** A test begins inside {@code in}, and becomes the scope of this thread. */
    Scope startTest(Scope in, Identity identity);

    /** A test ends. */
    void endTest(Scope test, Ending ending);

    /** A step begins in the scope of this thread, and becomes its scope. */
    default Step startStep(String name) {
        return startStep(StepKind.ACTION, name);
    }

    /** A step of a kind begins in the scope of this thread, and becomes its scope. */
    Step startStep(StepKind kind, String name);

    /**
     * A step that begins in the scope of this thread and does not become its scope: what is recorded while it lasts stands
     * beside it. For what an adapter notices by and by, such as that a test waits. May be ended on any thread.
     */
    Step startStepBeside(StepKind kind, String name);

    /**
     * Makes {@code scope} the scope of this thread until the result is closed on the same thread. Where this thread is
     * already in it, or deeper inside, nothing changes.
     */
    Stay enter(Scope scope);

    /** Something inside the scope of this thread threw {@code failure}: takes the evidence now, once for one failure. */
    void takeEvidence(Throwable failure);

    /** @see dev.verbale.Verbale#announce */
    void announce(EvidenceSource source);

    /** @see dev.verbale.Verbale#secret */
    void secret(String value);

    /**
     * From now on failed checks of the test that runs on this thread are gathered: whoever calls this has to throw what
     * {@link #failedChecks} gives at the end of the test.
     */
    void gatherChecks();

    /** The checks that failed so far in the test that runs on this thread, in one; null where there is none. */
    @Nullable
    ChecksFailed failedChecks();

    /**
     * Writes a check down, with evidence where it failed.
     *
     * @return whether its failure is gathered; where it is not, the caller has to throw it
     */
    boolean checked(String name, @Nullable Throwable failure);

    /** Writes down a check that failed and that somebody else will throw, with evidence. */
    void observed(String name, Throwable failure);

    /** Says something about the test that runs on this thread. */
    void describe(Description description);

    /** @see dev.verbale.Verbale#exchange */
    Exchange exchange(String method, String url);

    /** The same for what belongs to {@code in}, whatever thread says so, and may be answered after its test has ended. */
    Exchange exchange(Scope in, String method, String url);

    /** Keeps what a logger wrote. */
    void log(LogLine line);

    /** The same of a line that is made where it does no harm: a logger's message asks the suite's values for their texts. */
    void log(Supplier<LogLine> line);

    /** Whether the value that goes by {@code name} is secret, by the known words and those of the settings. */
    boolean isSecretName(@Nullable String name);

    /** Writes a line as it is. */
    void note(String text);

    /** @see dev.verbale.Verbale#note */
    void note(String text, @Nullable Object @Nullable [] values);

    /** @see dev.verbale.Verbale#data */
    void data(String name, @Nullable Object value);

    /** @see dev.verbale.Verbale#fact */
    void fact(String name, @Nullable Object value);

    /** @see dev.verbale.Verbale#attach(String, byte[], String) */
    void attach(String name, byte[] content, String mediaType);

    /** @see dev.verbale.Verbale#attach(String, InputStream, String) */
    void attach(String name, InputStream content, String mediaType);

    /**
     * Keeps what {@code content} gives when it is asked, which is before this returns, and where it does no harm whatever it
     * throws.
     */
    void attach(String name, ContentSource content, String mediaType);

    /** @see dev.verbale.Verbale#attach(Path) */
    void attach(Path file);

    /** @see dev.verbale.Verbale#attachMoved */
    void attachMoved(Path file);

    /**
     * Promises a paper to the scope of this thread.
     *
     * @param kind as in {@link dev.verbale.event.PaperKept}
     */
    PromisedPaper promise(String name, String kind);

    /** The test that runs on this thread, or the container where none does, or the run. */
    Scope owner();

    /** The folder of the run; null where nothing is recorded. What is made in there by somebody else is his to remove. */
    @Nullable
    Path folder();

    /**
     * Keeps a paper in {@code in}, which may have ended.
     *
     * @param kind as in {@link dev.verbale.event.PaperKept}
     * @param begins when what it shows begins, by {@link #now}; 0 where it has no time of its own
     */
    void paper(Scope in, String name, String kind, InputStream content, String mediaType, long begins);

    /** Microseconds on the clock of this recorder's journal. */
    long now();

    /**
     * {@code text}, or its first {@code most} characters and how many more there are. Its secrets are masked before it is cut:
     * half of one would not be known for one later.
     */
    String shortened(String text, int most);

    /**
     * What a setting says, for adapters; the guide's table has them all. A value that is not allowed is a problem of the run.
     *
     * @param key such as {@code verbale.video}
     * @param otherwise what holds where nothing is set, or nothing that is allowed
     * @param allowed the values that mean something; empty where each does
     */
    String setting(String key, String otherwise, List<String> allowed);

    /**
     * The test framework has done its work for now: says so in one line on the standard output, unless that is switched
     * off or nothing ran since it was last said.
     */
    void sessionEnded();

    /** A visit to a scope. */
    interface Stay extends AutoCloseable {
        /** Puts back the scope that was there before. */
        @Override
        void close();
    }
}
