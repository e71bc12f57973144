package dev.verbale.border;

/**
 * Lets a thread end that somebody stopped; everything else that the suite's code throws is kept from the tests.
 *
 * <p>Told by its name: the class is to be removed from Java, and a {@code catch} of a class that is not there throws into the
 * test what it was written to keep from it.
 */
public final class ThreadStop {

    private ThreadStop() {}

    /** Throws {@code thrown} again where it is what stopped the thread. */
    public static void goesOn(Throwable thrown) {
        if (is(thrown)) throw (Error) thrown;
    }

    public static boolean is(Throwable thrown) {
        return thrown instanceof Error && thrown.getClass().getName().equals("java.lang.ThreadDeath");
    }
}
