package dev.verbale.hub;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.jdbi.v3.core.JdbiException;

/** Every hour lets go what is kept no longer: runs, objects that no run has, and this hub's copies of runs that are gone. */
final class Sweeper implements AutoCloseable {

    private static final Duration EVERY = Duration.ofHours(1);

    private final Keeping keeping;
    private final Projects projects;
    private final ObjectFolder objects;
    private final Mirror mirror;
    private final Thread thread = new Thread(this::run, "hub-sweeper");

    Sweeper(Keeping keeping, Projects projects, ObjectFolder objects, Mirror mirror) {
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
        try {
            while (true) {
                try {
                    sweep(Instant.now());
                } catch (IOException | JdbiException away) {
                    // database or storage is away for a moment; there is another hour
                }
                Thread.sleep(EVERY.toMillis());
            }
        } catch (InterruptedException closed) {
            // the hub ends
        }
    }

    /** What has to go by then. */
    void sweep(Instant now) throws IOException {
        for (String project : projects.all()) {
            for (Keeping.Going run : keeping.going(project, now)) keeping.letGo(run.id());
            Set<String> there = new HashSet<>(keeping.runs(project));
            for (Path copy : folders(mirror.runs(project)))
                if (!there.contains(copy.getFileName().toString())) mirror.forget(copy);
        }
        objects.sweep(now, keeping::isNeeded);
    }

    private static List<Path> folders(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(Files::isDirectory).toList();
        }
    }

    @Override
    public void close() {
        thread.interrupt();
    }
}
