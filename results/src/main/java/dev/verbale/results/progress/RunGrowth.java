package dev.verbale.results.progress;

import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * Whether a run's journals, those of its shards too, have grown, by their number and lengths: a look at them costs next to nothing, however long they are. For one
 * thread.
 *
 * @since 0.2.0
 */
public final class RunGrowth {

    private static final Duration LONGEST_AGE = Duration.ofDays(1);

    private final RunFolder folder;
    private long bytes = -1;
    private int files;
    private long since = System.nanoTime();
    private boolean isLooked;

    /** Of the run in {@code folder}, which was not looked at yet. */
    public RunGrowth(RunFolder folder) {
        this.folder = folder;
    }

    /** Whether they have grown since the last look. */
    public boolean look() throws IOException {
        long all = 0;
        int number = 0;
        Instant last = Instant.EPOCH;
        List<Path> journals = new ArrayList<>(folder.journalFiles());
        for (RunFolder shard : folder.shards()) journals.addAll(shard.journalFiles());
        for (Path journal : journals) {
            all += Files.size(journal);
            number++;
            Instant written = Files.getLastModifiedTime(journal).toInstant();
            if (written.isAfter(last)) last = written;
        }
        if (all == bytes && number == files) return false;
        bytes = all;
        files = number;
        since = System.nanoTime() - (isLooked || number == 0 ? 0 : age(last).toNanos());
        isLooked = true;
        return true;
    }

    /** Nobody waits for a run that was killed yesterday. */
    private static Duration age(Instant last) {
        Duration age = Duration.between(last, Instant.now());
        if (age.isNegative()) return Duration.ZERO; // written by a machine whose clock is ahead
        return age.compareTo(LONGEST_AGE) > 0 ? LONGEST_AGE : age;
    }

    /** How long they have not; what was before the first look counts. */
    public Duration silent() {
        return Duration.ofNanos(System.nanoTime() - since);
    }
}
