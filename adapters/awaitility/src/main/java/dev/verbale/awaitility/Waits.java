package dev.verbale.awaitility;

import org.jspecify.annotations.Nullable;

/** Which wait it is that something is heard of. */
interface Waits {

    /** The one that began last; null where none is known. */
    @Nullable
    Wait current();

    void begins(Wait wait);

    /**
     * That of the thread, or of the one that made it: Awaitility asks a condition on a thread that it makes for that wait. A wait
     * that is over holds nothing, so a thread that lives longer keeps nothing of a test.
     */
    static Waits byThread() {
        return new Waits() {
            private final ThreadLocal<@Nullable Wait> ofThread = new InheritableThreadLocal<>();

            @Override
            public @Nullable Wait current() {
                return ofThread.get();
            }

            @Override
            public void begins(Wait wait) {
                ofThread.set(wait);
            }
        };
    }

    /** The only one there is. */
    static Waits ofOne() {
        return new Waits() {
            private volatile @Nullable Wait only;

            @Override
            public @Nullable Wait current() {
                return only;
            }

            @Override
            public void begins(Wait wait) {
                only = wait;
            }
        };
    }
}
