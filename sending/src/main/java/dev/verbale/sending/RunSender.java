package dev.verbale.sending;

import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/**
 * Sends the folder of a run to a hub. It only reads the folder, whose secrets are masked already, and may be ended and begun again at any
 * time: what the hub has is not sent again. For one thread, and never for one that runs tests; where the options say so it has some more of
 * its own while it sends.
 *
 * @since 0.2.0
 */
public final class RunSender {

    /** Often enough to be live, and seldom enough to cost the hub nothing. */
    private static final Duration EVERY = Duration.ofMillis(200);

    /** Whoever runs tests beside it keeps the processor, and a hub that is slow is asked less often. */
    private static final int REST_BY_COST = 50;

    private static final Duration LONGEST_REST = Duration.ofSeconds(1);

    /** Other files than journals are looked for in each so manieth round. */
    private static final int ROUNDS_OF_ALL = 5;

    /** A JVM that was killed says nothing any more. */
    private static final Duration LONGEST_SILENCE = Duration.ofMinutes(10);

    private final RunFolder folder;
    private final SendOptions options;
    private final HubConnection hub;
    private final Map<String, SentPart> parts = new LinkedHashMap<>();
    private long bytes;

    /** Of the run in {@code folder}. Nothing is sent yet. */
    public RunSender(RunFolder folder, SendOptions options) {
        this.folder = folder;
        this.options = options;
        this.hub = new HubConnection(options);
    }

    /**
     * Sends all that is there, and says to the hub that it is all.
     *
     * @throws HubRefused where the hub does not take it
     * @throws IOException where the hub cannot be reached, or the folder not be read; what was sent until then stays there
     * @throws IllegalArgumentException where the run has a name that a hub cannot keep
     */
    public SentRun send() throws IOException, InterruptedException {
        sendNew(true);
        return end();
    }

    /**
     * Sends what comes, until the run is over: each of its JVMs has ended and nothing more came for a while, nothing came for ten
     * minutes, or {@code isOver} says so. Then as {@link #send}.
     *
     * @param silence that while: a build starts one JVM after another
     */
    public SentRun follow(Duration silence, BooleanSupplier isOver) throws IOException, InterruptedException {
        long changed = System.nanoTime();
        for (int round = 0; !isOver.getAsBoolean(); round++) {
            long from = System.nanoTime();
            if (sendNew(round % ROUNDS_OF_ALL == 0) > 0) changed = System.nanoTime();
            long cost = System.nanoTime() - from;
            Duration silent = Duration.ofNanos(System.nanoTime() - changed);
            if (silent.compareTo(LONGEST_SILENCE) > 0 || (silent.compareTo(silence) > 0 && hasEnded())) break;
            long rest = Math.min(LONGEST_REST.toNanos(), Math.max(EVERY.toNanos(), REST_BY_COST * cost));
            TimeUnit.NANOSECONDS.sleep(rest);
        }
        return send();
    }

    private boolean hasEnded() throws IOException {
        for (SentPart part : parts.values()) if (!part.hasEnded()) return false;
        return !parts.isEmpty();
    }

    private long sendNew(boolean all) throws IOException, InterruptedException {
        if (all) find();
        long before = bytes;
        for (SentPart part : parts.values()) bytes += part.send(hub, options.project(), run(), all, options.atOnce());
        return bytes - before;
    }

    private void find() throws IOException {
        List<RunFolder> shards = folder.shards();
        for (RunFolder shard : shards) parts.computeIfAbsent(shard.name(), name -> new SentPart(shard));
        if (shards.isEmpty() || !folder.journalFiles().isEmpty())
            parts.computeIfAbsent("", itself -> new SentPart(folder));
    }

    private SentRun end() throws IOException, InterruptedException {
        List<String> unsent = new ArrayList<>();
        int files = 0;
        for (SentPart part : parts.values()) files += part.end(hub, options.project(), run(), unsent);
        return new SentRun(hub.address("projects", options.project(), "runs", run(), ""), files, bytes, unsent);
    }

    private String run() {
        return options.run() == null ? SendOptions.named("run", folder.name()) : options.run();
    }
}
