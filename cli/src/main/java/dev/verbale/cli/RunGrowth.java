package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;

/** Whether a run's journals have grown, by their number and lengths: a look at them costs next to nothing, however long they are. */
final class RunGrowth {

    private final RunFolder folder;
    private long bytes = -1;
    private int files;
    private long since = System.nanoTime();

    RunGrowth(RunFolder folder) {
        this.folder = folder;
    }

    /** Whether they have grown since the last look. */
    boolean look() throws IOException {
        long all = 0;
        int number = 0;
        for (Path journal : folder.journalFiles()) {
            all += Files.size(journal);
            number++;
        }
        if (all == bytes && number == files) return false;
        bytes = all;
        files = number;
        since = System.nanoTime();
        return true;
    }

    /** How long they have not. */
    Duration silent() {
        return Duration.ofNanos(System.nanoTime() - since);
    }
}
