package dev.verbale.journal;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReferenceFieldUpdater;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/**
 * Lets one thread at a time write, and cannot be left locked. A stack overflow may strike at any call, also at the one that
 * would unlock: so taking this back is no call at all but a store to a field, which needs no stack. {@code finally} does it
 * where the thread that is known to hold it is the one that leaves.
 *
 * <pre>{@code
 * Thread me = Thread.currentThread();
 * try {
 *     if (!lock.acquired(me, nanos)) return false;
 *     write();
 * } finally {
 *     if (lock.owner == me) lock.owner = null;
 * }
 * }</pre>
 *
 * <p>Waiting is bounded, and an interrupt neither ends it nor is swallowed. It is not fair: what is protected takes a
 * microsecond, and handing it over from thread to thread would take ten.
 */
final class AppendLock {

    private static final AtomicReferenceFieldUpdater<AppendLock, @Nullable Thread> OWNER =
            AtomicReferenceFieldUpdater.newUpdater(AppendLock.class, Thread.class, "owner");

    private static final int SPINS = 200;
    private static final int YIELDS = 20;
    private static final long PAUSE_NANOS = 50_000;

    /** Who writes now; only that thread takes it back. */
    volatile @Nullable Thread owner;

    /** Whether {@code me}, the calling thread, holds it now; not where that took longer than {@code limitNanos}. */
    boolean acquired(Thread me, long limitNanos) {
        for (int tried = 0; tried < SPINS; tried++) {
            if (owner == null && OWNER.compareAndSet(this, null, me)) return true;
            Thread.onSpinWait();
        }
        long from = System.nanoTime();
        for (int tried = 0; ; tried++) {
            if (owner == null && OWNER.compareAndSet(this, null, me)) return true;
            if (tried < YIELDS) Thread.yield();
            else if (System.nanoTime() - from > limitNanos) return false;
            // An interrupted thread is not parked: it waits all the same, and stays interrupted.
            else if (Thread.currentThread().isInterrupted()) Thread.yield();
            else LockSupport.parkNanos(this, PAUSE_NANOS);
        }
    }

    /** The longest that somebody waits for a disk that does not answer, before giving his own line up. */
    static long limitNanos() {
        return TimeUnit.SECONDS.toNanos(5);
    }
}
