package dev.verbale.engine.attachment;

import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.Problems;
import dev.verbale.folder.MediaTypes;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Masks large HTTP archives on a thread of its own: each of their thousands of texts is looked at, which takes a second or two,
 * and no test should wait for that. Until then the archive is pending, and the end of the JVM waits for it, within limits.
 */
final class LargeArchives {

    /** Up to this many bytes one is masked at once. */
    private static final long SMALL = 1_000_000;
    /** A larger one is not kept: it is read into memory. */
    private static final long LARGEST = 100_000_000;
    /** Of those that wait. What comes on top of that is masked by whoever attaches it. */
    private static final long MAX_WAITING = 200_000_000;

    private static final long LONGEST_WAIT_SECONDS = 8;
    private static final byte[] NOTHING = {};

    private final Guard guard;
    private final Problems problems;
    private final AtomicLong waiting = new AtomicLong();
    private @Nullable ThreadPoolExecutor masking; // most runs have none

    LargeArchives(Guard guard, Problems problems) {
        this.guard = guard;
        this.problems = problems;
    }

    /** Whether {@code size} bytes of this type are to be handed to {@link #keep}. */
    public static boolean takes(@Nullable String mediaType, long size) {
        return size > SMALL && mediaType != null && MediaTypes.plain(mediaType).equals(MediaTypes.HTTP_ARCHIVE);
    }

    /** Reads {@code content} now, for the test goes on, and masks it later; {@code pending} is asked for where it can be read. */
    public void keep(String name, Callable<byte[]> content, long size, Supplier<PendingAttachment> pending) {
        byte[] read = guard.get(Task.ATTACHMENT, NOTHING, context -> {
            if (size > LARGEST)
                throw new IOException("'" + name + "' is an archive of " + size / 1_000_000 + " MB, and only up to "
                        + LARGEST / 1_000_000 + " MB are kept");
            return content.call();
        });
        if (read.length == 0) return;
        PendingAttachment attachment = pending.get();
        Runnable work = () -> {
            attachment.complete(new ByteArrayInputStream(read), MediaType.of(MediaTypes.HTTP_ARCHIVE));
            waiting.addAndGet(-read.length);
        };
        if (waiting.addAndGet(read.length) > MAX_WAITING) work.run();
        else masking().execute(work);
    }

    private synchronized ThreadPoolExecutor masking() {
        ThreadPoolExecutor known = masking;
        if (known != null) return known;
        var fresh = new ThreadPoolExecutor(
                1,
                1,
                1,
                TimeUnit.SECONDS,
                new LinkedBlockingQueue<>(),
                work -> {
                    var thread = new Thread(work, "verbale-archives");
                    thread.setDaemon(true);
                    return thread;
                },
                new ThreadPoolExecutor.CallerRunsPolicy()); // the JVM is ending: there is no later
        fresh.allowCoreThreadTimeOut(true); // no thread where there is nothing to do
        masking = fresh;
        return fresh;
    }

    /** Waits for those that are under way. */
    public void finish() {
        ThreadPoolExecutor known;
        synchronized (this) {
            known = masking;
        }
        if (known == null) return;
        known.shutdown();
        try {
            if (!known.awaitTermination(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS))
                problems.add("attaching: the end came before all archives were masked; these are missing");
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
