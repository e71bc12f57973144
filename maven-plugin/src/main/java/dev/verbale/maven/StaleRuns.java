package dev.verbale.maven;

import dev.verbale.results.sweep.RunSweeper;
import dev.verbale.results.sweep.RunSweeper.Judged;
import dev.verbale.results.sweep.SweepRule;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.function.Consumer;

/** Deletes runs that a build has too many of; those that failed too. */
final class StaleRuns {

    private final Path root;

    StaleRuns(Path root) {
        this.root = root;
    }

    /** All but the newest {@code keep}. */
    void delete(int keep, Consumer<String> out) throws IOException {
        if (keep < 1) throw new IllegalArgumentException("keepRuns is " + keep + ". Write 1 or more.");
        var rule = new SweepRule(keep, null, null, true);
        long deleted = new RunSweeper(root, rule, Clock.systemUTC().instant())
                .sweep().stream().filter(Judged::goes).count();
        if (deleted > 0) out.accept("Verbale: deleted " + deleted + (deleted == 1 ? " older run." : " older runs."));
    }
}
