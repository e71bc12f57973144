package dev.verbale;

import org.jspecify.annotations.Nullable;

/**
 * What a step does, with a value to give back.
 *
 * @param <T> the value
 * @param <X> what it may throw; inferred from the lambda
 * @since 0.2.0
 */
@FunctionalInterface
public interface ThrowingSupplier<T extends @Nullable Object, X extends Throwable> {
    /** Does it and gives the value. */
    T get() throws X;
}
