package dev.verbale.hub;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.jdbi.v3.core.JdbiException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Every hour ends what is silent, and lets go what is kept no longer: runs, objects that no run has, and this hub's copies of runs that are gone. */
final class Sweeper implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Sweeper.class);

    private static final Duration EVERY = Duration.ofHours(1);

    /** All of the storage is listed: once a day. */
    private static final int ROUNDS_OF_OBJECTS = 24;

    private final Keeping keeping;
    private final Projects projects;
    private final StoredObjects objects;
    private final Mirror mirror;
    private final SilentParts silent;
    private final Thread thread = new Thread(this::run, "hub-sweeper");
    private final CountDownLatch over = new CountDownLatch(1);

    Sweeper(Keeping keeping, Projects projects, StoredObjects objects, Mirror mirror, SilentParts silent) {
        this.silent = silent;
        this.keeping = keeping;
        this.projects = projects;
        this.objects = objects;
        this.mirror = mirror;
        thread.setDaemon(true);
    }

    void start() {
        thread.start();
    }

    private void run() {
        int round = 0;
        do {
            try {
                sweep(Instant.now(), round++ % ROUNDS_OF_OBJECTS == 0);
            } catch (IOException | JdbiException away) {
                LOG.warn("What is kept no longer stays for another hour.", away);
            }
        } while (!isOver());
    }

    /** Whether the hub ends within the hour. Nobody is interrupted: that would close the files of the embedded database. */
    private boolean isOver() {
        try {
            return over.await(EVERY.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException hurried) {
            return true;
        }
    }

    /**
     * What has to go by then.
     *
     * @param withObjects whether that is also what no run needs
     */
    void sweep(Instant now, boolean withObjects) throws IOException {
        silent.end(now);
        for (String project : projects.all()) {
            for (Keeping.Going run : keeping.going(project, now)) keeping.letGo(run.id());
            List<Path> copies =
                    folders(mirror.runs(project)); // first: what came meanwhile is in the database before it is here
            Set<String> there = new HashSet<>(keeping.runs(project));
            for (Path copy : copies) if (!there.contains(copy.getFileName().toString())) mirror.forget(copy);
        }
        if (withObjects) objects.sweep(now);
    }

    private static List<Path> folders(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(Files::isDirectory).toList();
        }
    }

    @Override
    public void close() {
        over.countDown();
        try {
            thread.join(5_000);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
