package dev.verbale.sender;

import dev.verbale.folder.LastOfRun;
import dev.verbale.folder.RunFolder;
import dev.verbale.sending.HubRefused;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/** Sends what is new, on one quiet thread, while it is this JVM's turn. */
final class FollowedRun {

    /** So long the JVM's end waits for the rest, and for whoever was sending. */
    private static final Duration ENDS_WITHIN = Duration.ofSeconds(20);

    private static final long TRIED_AGAIN_AFTER = TimeUnit.SECONDS.toNanos(1);

    /** It is over when its JVMs have ended, which the last one says. */
    private static final Duration NEVER_BY_ITSELF = Duration.ofDays(1);

    private final RunFolder folder;
    private final SendOptions options;
    private final LastOfRun among;
    private final Thread thread = new Thread(this::follow, "verbale-sender");
    private volatile boolean isOver;
    private volatile @Nullable HubRefused refused;

    FollowedRun(RunFolder folder, SendOptions options, LastOfRun among) {
        this.folder = folder;
        this.options = options;
        this.among = among;
        quiet(thread).start();
    }

    private static Thread quiet(Thread thread) {
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    }

    private void follow() {
        while (!isOver) {
            if (among.hasTurn()) {
                try {
                    new RunSender(folder, options).follow(NEVER_BY_ITSELF, () -> false);
                } catch (HubRefused forGood) {
                    refused = forGood; // trying again would not help
                    return;
                } catch (InterruptedException ends) {
                    return;
                } catch (IOException | RuntimeException away) {
                    // the next one asks what is there
                }
            }
            LockSupport.parkNanos(TRIED_AGAIN_AFTER);
        }
    }

    /** Ends the thread; what it had not sent is the last JVM's. */
    void stop() {
        isOver = true;
        thread.interrupt();
        try {
            thread.join(ENDS_WITHIN.toMillis());
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    /** Sends what is missing, and says that this is all. In a line for the output, where it was not. */
    Optional<String> sendRest() {
        if (refused != null) return Optional.of(unsent(refused));
        var rest = new FutureTask<SentRun>(() -> new RunSender(folder, options).send());
        quiet(new Thread(rest, "verbale-sender")).start();
        try {
            SentRun sent = rest.get(ENDS_WITHIN.toSeconds(), TimeUnit.SECONDS);
            return Optional.of(
                    sent.isWhole()
                            ? "Verbale: sent to " + sent.page()
                            : unsent(new IOException(String.join("; ", sent.unsent()))));
        } catch (ExecutionException failed) {
            return Optional.of(unsent(failed.getCause()));
        } catch (TimeoutException slow) {
            rest.cancel(true);
            return Optional.of(unsent(new IOException("the hub at " + options.hub() + " is slow")));
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    private static String unsent(@Nullable Throwable why) {
        String reason = why == null ? "" : String.valueOf(why.getMessage());
        return "Verbale: the run was not sent as a whole: " + reason.replaceFirst("\\.$", "")
                + ". 'verbale hub send' sends what is missing.";
    }
}
