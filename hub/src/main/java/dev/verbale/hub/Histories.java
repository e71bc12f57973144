package dev.verbale.hub;

import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.lang.ref.SoftReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/**
 * What is remembered of each project's runs, in a folder that can be made anew of their copies. A run is remembered when one that sends it says
 * that this was all, by a thread of its own: a large one takes seconds.
 */
final class Histories implements AutoCloseable {

    /** Files named as runs, which say when the last part was over of what is remembered of them. */
    private static final String SEEN = "seen";

    private final Path folder;
    private final Thread thread = new Thread(this::remember, "hub-history");
    private final Set<Sent> waiting = new LinkedHashSet<>();
    private final AtomicLong version = new AtomicLong();
    private final Map<String, Kept> kept = new ConcurrentHashMap<>();
    private boolean isClosed;

    Histories(Path folder) {
        this.folder = folder;
        thread.setDaemon(true);
    }

    /** A run whose copy is as it was sent when a part of it was over. */
    record Sent(String project, Path run, Instant over) {}

    void start() {
        thread.start();
    }

    /** Of a project, in the format of everybody's. */
    HistoryFolder of(String project) {
        return new HistoryFolder(folder.resolve(project));
    }

    /** As it is now; what cannot be read of it is passed over. Kept while there is memory for it. */
    History read(String project) throws IOException {
        long now = version.get();
        Kept before = kept.get(project);
        History known = before == null || before.version() != now
                ? null
                : before.history().get();
        if (known != null) return known;
        History read = of(project).read(problem -> {});
        kept.put(project, new Kept(now, new SoftReference<>(read)));
        return read;
    }

    private record Kept(long version, SoftReference<History> history) {}

    /** Another number after each run. */
    long version() {
        return version.get();
    }

    void ended(Sent sent) {
        synchronized (waiting) {
            waiting.add(sent);
            waiting.notifyAll();
        }
    }

    private void remember() {
        for (Sent next = next(); next != null; next = next()) {
            try {
                Path seen = of(next.project())
                        .path()
                        .resolve(SEEN)
                        .resolve(next.run().getFileName());
                String over = next.over().toString();
                if (Files.exists(seen) && Files.readString(seen).equals(over)) continue;
                of(next.project()).add(RunDigest.of(RunReader.read(next.run())));
                Files.createDirectories(seen.getParent());
                Files.writeString(seen, over);
                version.incrementAndGet();
            } catch (IOException | RuntimeException unreadable) {
                // its page says why
            }
        }
    }

    /** Null where it is closed. */
    private @Nullable Sent next() {
        synchronized (waiting) {
            try {
                while (waiting.isEmpty() && !isClosed) waiting.wait();
            } catch (InterruptedException closed) {
                return null;
            }
            if (isClosed) return null;
            Sent first = waiting.iterator().next();
            waiting.remove(first);
            return first;
        }
    }

    @Override
    public void close() {
        synchronized (waiting) {
            isClosed = true;
            waiting.notifyAll();
        }
        try {
            thread.join(5_000);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
