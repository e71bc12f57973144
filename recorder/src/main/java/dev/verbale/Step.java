package dev.verbale;

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
 * <p>A step that is closed without an end before is marked as unfinished: Java does not tell {@code close} whether an
 * exception is passing through, and calling it passed could be a lie.
 *
 * @since 0.2.0
 */
public interface Step extends AutoCloseable {

    /** One that is not recorded. */
    Step NONE = new Step() {
        @Override
        public void passed() {}

        @Override
        public void failed(Throwable failure) {}

        @Override
        public void skipped(String reason) {}

        @Override
        public Step within(Duration budget) {
            return this;
        }

        @Override
        public void close() {}
    };

    /** The step did what it should. */
    void passed();

    /** The step threw {@code failure}; evidence is captured now, unless an inner step took it for this failure. */
    void failed(Throwable failure);

    /** The step was not done, and {@code reason} says why. */
    void skipped(String reason);

    /** The step should take no longer than this. Where it does, it is marked, not cut. */
    Step within(Duration budget);

    /** Ends it where nothing ended it yet. */
    @Override
    void close();
}
