package dev.verbale.stack;

/**
 * Runs out of memory where nothing has begun yet, rather than in the middle: a class whose initialization ends in that is lost to the
 * JVM, and whatever needs it throws from then on. For what is done the first time.
 */
public final class HeapSpace {

    /** What the recorder's classes and its first buffers take, with half as much again. */
    private static final int FIRST_CALL = 3 << 20;

    private HeapSpace() {}

    /** @throws OutOfMemoryError where there is none for the first call */
    public static void ensureForFirstCall() {
        ensure(FIRST_CALL);
    }

    /** In pieces, as it will be needed; the length is used, so that no compiler leaves them out. */
    private static void ensure(int bytes) {
        byte[][] pieces = new byte[bytes >> 16][];
        for (int i = 0; i < pieces.length; i++) pieces[i] = new byte[1 << 16];
        if (pieces[pieces.length - 1].length == 0) throw new AssertionError();
    }
}
