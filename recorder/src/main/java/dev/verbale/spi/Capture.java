package dev.verbale.spi;

import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.Scope;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.io.InputStream;
import java.util.function.Supplier;

/**
 * What adapters of clients, browsers, loggers and assertions call: what happened, as it happens.
 *
 * <p>Order: none is asked for; what is recorded stands where and when it was recorded. Threads: from any; what names no scope
 * belongs to the scope of the calling thread. Failure: no call throws, and what could not be recorded is counted in the run.
 *
 * <pre>{@code
 * AdapterExchange exchange = Capture.current().exchange("GET", "https://orto.example/beds");
 * exchange.client("Orto client").requestHeader("Accept", "text/csv");
 * exchange.status(200).responseHeader("Content-Type", "text/csv");
 * exchange.responseBody(rotaPage.asCsv().getBytes(UTF_8), "").ended();
 * }</pre>
 *
 * @since 0.2.0
 */
public interface Capture {

    /** The one of this JVM; see {@link AdapterRecorder#current()}. */
    static Capture current() {
        return AdapterRecorder.current();
    }

    /** Whether calls leave anything behind. Ask before doing work that only serves recording. */
    boolean isRecording();

    /** A step of a kind begins in the scope of this thread, and becomes its scope. */
    AdapterStep startStep(StepKind kind, String name);

    /** A step of a kind begins, with a table or a text below it. Cells whose row or column has the name of a secret are masked. */
    AdapterStep startStep(StepKind kind, String name, StepArgument argument);

    /**
     * A step that begins in the scope of this thread and does not become its scope: what is recorded while it lasts stands
     * beside it. For what an adapter notices by and by, such as that a test waits. May be ended on any thread.
     */
    AdapterStep startOverlappingStep(StepKind kind, String name);

    /** @see dev.verbale.Verbale#exchange */
    AdapterExchange exchange(String method, String url);

    /** Begins an exchange that belongs to {@code in}, whatever thread calls; it may be answered after its test has ended. */
    AdapterExchange exchange(Scope in, String method, String url);

    /** Keeps what a logger wrote. */
    void log(LogLine line);

    /**
     * Keeps what a logger wrote, as {@code line} makes it where that does no harm: a logger's message asks the suite's values for
     * their texts.
     */
    void log(Supplier<LogLine> line);

    /** Records a check that failed and that somebody else will throw, with evidence. */
    void checkFailed(String name, Throwable failure);

    /** Something inside the scope of this thread threw {@code failure}: captures the evidence now, once for one failure. */
    void captureEvidence(Throwable failure);

    /**
     * Attaches something to {@code in}, which may have ended.
     *
     * @param kind as in {@link dev.verbale.vocabulary.AttachmentKind}
     * @param begins when what it shows begins, by {@link Context#now}; 0 where it has no time of its own
     */
    void attach(Scope in, String name, String kind, InputStream content, MediaType type, long begins);

    /**
     * Something will be attached to the scope of this thread.
     *
     * @param kind as in {@link dev.verbale.vocabulary.AttachmentKind}
     */
    PendingAttachment attachLater(String name, String kind);
}
