package dev.verbale.recorder;

import java.time.Duration;

/**
 * A step that has begun. One of its ends is called on the thread that began it; anything else does no harm and leaves a
 * problem in the run.
 *
 * <pre>{@code
 * try (Step step = Verbale.begin("Swap plots")) {
 *     rotaPage.swap(12, 7);
 *     step.passed();
 * }
 * }</pre>
 *
 * <p>A step that is closed without a word before is marked as left unfinished: Java does not tell {@code close} whether an
 * exception is passing through, and calling it passed could be a lie.
 */
public interface Step extends AutoCloseable {
    /** It did what it should. */
    void passed();

    /** It threw {@code failure}; evidence is taken now, unless an inner step took it for this failure. */
    void failed(Throwable failure);

    /** It threw {@code failure}, and whoever called it may well catch that: no evidence is taken. */
    void failedWithoutEvidence(Throwable failure);

    /** It was not done, and {@code reason} says why. */
    void skipped(String reason);

    /**
     * Its end, which is told next, was at {@code micros} by {@link Recorder#now}, and is only known now. An adapter notices
     * that a wait is over when the next thing begins. Only of a step that stands beside others; of any other it says nothing.
     */
    Step at(long micros);

    /** It should take no longer than this. Where it does, it is marked, not cut. */
    Step within(Duration budget);

    /** Ends it where nothing ended it yet. */
    @Override
    void close();
}
