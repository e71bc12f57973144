package dev.verbale;

import java.util.concurrent.Callable;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Work with a value that belongs to the step it was handed over in, wherever it is asked for: as a {@link Callable} or as a
 * {@link Supplier}.
 *
 * <pre>{@code
 * CarriedTask<String> export = Verbale.carry(() -> rotaPage.asCsv());
 * CompletableFuture<String> csv = CompletableFuture.supplyAsync(export);
 * }</pre>
 *
 * @param <T> the value
 * @since 0.2.0
 */
public interface CarriedTask<T extends @Nullable Object> extends Callable<T>, Supplier<T> {

    /** The value; what the work throws is thrown as it is, also where it is checked and this cannot say so. */
    @Override
    T get();

    /** What {@code work} gives, or throws, whether or not that is checked. */
    @SuppressWarnings("TypeParameterUnusedInFormals")
    static <T extends @Nullable Object> T unchecked(Callable<T> work) {
        return CarriedTask.<T, RuntimeException>rethrowing(work);
    }

    @SuppressWarnings("unchecked") // erased: the cast does nothing
    private static <T extends @Nullable Object, X extends Exception> T rethrowing(Callable<T> work) throws X {
        try {
            return work.call();
        } catch (Exception thrown) {
            throw (X) thrown;
        }
    }
}
