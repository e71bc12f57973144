package dev.verbale.stack;

/**
 * Overflows where nothing has begun yet, rather than in the middle: a class whose initialization ends in an overflow is lost to the
 * JVM, and whatever needs it throws from then on. For what is done the first time.
 */
public final class StackSpace {

    /** A call that may meet something new, after others like it. */
    private static final int CALL = 250;

    /** The first call of its kind, which loads what it needs, the JDK's own classes among it: 60 to 140 kB. */
    private static final int FIRST_CALL = 600;

    private StackSpace() {}

    /** @throws StackOverflowError where there is none for a call of a kind that there was before */
    public static void ensureForCall() {
        ensure(CALL, 1, 2, 3, 4, 5, 6);
    }

    /** @throws StackOverflowError where there is none for the first call of its kind */
    public static void ensureForFirstCall() {
        ensure(FIRST_CALL, 1, 2, 3, 4, 5, 6);
    }

    /** Frames of at least a hundred bytes each, which no compiler makes smaller: all that it was given is needed after its call. */
    private static long ensure(int frames, long a, long b, long c, long d, long e, long f) {
        return frames == 0 ? a : ensure(frames - 1, b, c, d, e, f, a + frames) + a + b * 2 + c * 3 + d * 5 + e * 7 + f;
    }
}
