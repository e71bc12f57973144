package dev.verbale;

/**
 * What a step does.
 *
 * @param <X> what it may throw; inferred from the lambda, so that callers declare nothing more than they did before
 * @since 0.2.0
 */
@FunctionalInterface
public interface ThrowingRunnable<X extends Throwable> {
    /** Does it. */
    void run() throws X;
}
