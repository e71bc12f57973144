package dev.verbale.cli;

import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.hub.Hub;
import dev.verbale.lake.AnyLake;
import dev.verbale.lake.Lake;
import dev.verbale.lake.LakeRun;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Brings what a hub remembers into a lake, a project at most once an hour, and where something new is remembered of it. On one quiet thread; what fails is
 * in the log, and is done again.
 */
final class HourlyLake implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(HourlyLake.class);

    private static final Duration EVERY = Duration.ofHours(1);
    private static final Duration LOOKED_EVERY = Duration.ofMinutes(1);

    private final Hub hub;
    private final AnyLake lake;
    private final Duration every;
    private final Duration lookedEvery;
    private final Map<String, Done> done = new HashMap<>();
    private final CountDownLatch over = new CountDownLatch(1);
    private final Thread thread = new Thread(this::run, "hub-lake");

    /** @param files of a history as they were */
    private record Done(List<String> files, long nanos) {}

    HourlyLake(Hub hub, AnyLake lake) {
        this(hub, lake, EVERY, LOOKED_EVERY);
    }

    /** @param lookedEvery whether something new is remembered */
    HourlyLake(Hub hub, AnyLake lake, Duration every, Duration lookedEvery) {
        this.hub = hub;
        this.lake = lake;
        this.every = every;
        this.lookedEvery = lookedEvery;
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        thread.start();
    }

    private void run() {
        try {
            do {
                look();
            } while (!over.await(lookedEvery.toMillis(), TimeUnit.MILLISECONDS));
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    private void look() {
        try {
            for (var one : hub.histories().entrySet()) {
                if (over.getCount() == 0) return;
                try {
                    bring(one.getKey(), one.getValue());
                } catch (IOException | RuntimeException away) {
                    LOG.atWarn()
                            .setCause(away)
                            .addKeyValue("project", one.getKey())
                            .log("What is remembered comes into the lake an hour later.");
                }
            }
        } catch (IOException away) {
            LOG.warn("The database does not say what is remembered.", away);
        }
    }

    private void bring(String project, HistoryFolder history) throws IOException {
        List<String> files = files(history);
        Done before = done.get(project);
        if (before != null && (before.files.equals(files) || System.nanoTime() - before.nanos < every.toNanos()))
            return;
        // Also where it fails: the next one comes in an hour, and other projects are served.
        done.put(project, new Done(before == null ? List.of() : before.files, System.nanoTime()));
        if (files.isEmpty()) return;
        History remembered = history.read(problem -> LOG.warn(problem.sentence()));
        List<RunSummary> lacking = lake.lacking(project, remembered.runs());
        Lake.Added added = lake.add(
                project,
                lacking.stream()
                        .flatMap(run -> history.digest(run.name(), run.started(), problem -> {}).stream())
                        .map(LakeRun::of)
                        .iterator());
        done.put(project, new Done(files, System.nanoTime()));
        LOG.atInfo()
                .addKeyValue("project", project)
                .addKeyValue("runs", added.runs())
                .log("Runs came into the lake.");
    }

    private static List<String> files(HistoryFolder history) throws IOException {
        List<String> files = new ArrayList<>();
        for (Path file : history.files())
            files.add(file.getFileName() + " " + Files.size(file) + " " + Files.getLastModifiedTime(file));
        return files;
    }

    /** Ends behind the run that comes in just now. */
    @Override
    public void close() {
        over.countDown();
        try {
            thread.join(30_000);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
