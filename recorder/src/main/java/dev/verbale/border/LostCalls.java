package dev.verbale.border;

/**
 * Calls of {@code Verbale} that came where the stack could not hold even the first step of recording. A field and not a method:
 * a store needs no stack.
 */
public final class LostCalls {

    /** So many; plain, so two threads at once may count one for two. */
    public static int count;

    private LostCalls() {}
}
