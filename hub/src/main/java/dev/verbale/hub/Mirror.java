package dev.verbale.hub;

import dev.verbale.folder.FolderTree;
import dev.verbale.results.join.RunJoiner;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.JdbiException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Run folders as they were sent, to be read: a copy of what is in database and storage, kept up on one thread. It may be thrown away at any
 * time. A run is a joined run, whose shards are the parts that were sent.
 */
final class Mirror implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Mirror.class);

    /** Another hub may have taken something in. */
    private static final long LOOKED_EVERY_MILLIS = 250;

    private static final long RESTS_MILLIS = 50;
    private static final long LOOKED_AGAIN_FOR = TimeUnit.SECONDS.toNanos(5);
    private static final int BATCH = 2_000;

    /** Numbers of changes are given in one order and seen in another, as transactions end: so many are looked at again. */
    private static final int AGAIN = 500;

    /** Ends are seen in another order than they were: those of so long ago are looked at again. */
    private static final Duration ENDS_AGAIN = Duration.ofMinutes(1);

    private final Jdbi jdbi;
    private final Uploads uploads;
    private final Path folder;
    private final Consumer<Histories.Sent> over;
    private boolean isAway;
    private final Thread thread = new Thread(this::keepUp, "hub-mirror");

    private final Set<Ended> known = new HashSet<>();
    private Instant lastEnd = Instant.EPOCH;

    /** Which change of the last uploads is here, as they are looked at again and again. */
    private final Map<Long, Long> copied = new LinkedHashMap<>() {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Long> eldest) {
            return size() > 4 * AGAIN;
        }
    };

    private final Object news = new Object();
    private boolean isNew = true;
    private boolean isClosed;
    private long seen;
    private long newest;
    private long calmSince = System.nanoTime();

    /** @param over hears of each run of which a part is over, when its copy is as it was sent; of those of before, too */
    Mirror(Jdbi jdbi, Uploads uploads, Path folder, Consumer<Histories.Sent> over) {
        this.jdbi = jdbi;
        this.uploads = uploads;
        this.folder = folder;
        this.over = over;
        thread.setDaemon(true);
    }

    /** A file as it should be. */
    private record Row(long id, String project, String run, String part, String path, long size, long changed) {}

    /** A run of which a part was over then. */
    private record Ended(String project, String run, Instant at) {}

    void start() {
        thread.start();
    }

    /** There is something new. */
    void changed() {
        synchronized (news) {
            isNew = true;
            news.notifyAll();
        }
    }

    /** Takes away the copy of a run that is gone. */
    void forget(Path copy) throws IOException {
        Path gone = folder.resolve("gone-" + copy.getFileName());
        FolderTree.delete(gone); // of a hub that was killed as it did this
        Files.move(copy, gone); // at once: it is no run any more while it is deleted
        FolderTree.delete(gone);
    }

    /** Where the runs of a project are. */
    Path runs(String project) {
        return folder.resolve(project);
    }

    private void keepUp() {
        while (awaitNews()) {
            long from = System.nanoTime();
            try {
                List<Ended> ended = ended();
                long last = seen;
                while (look() == BATCH && seen > last) last = seen;
                for (Ended one : ended) {
                    if (!known.add(one)) continue;
                    over.accept(new Histories.Sent(
                            one.project(), runs(one.project()).resolve(one.run()), one.at()));
                    if (one.at().isAfter(lastEnd)) lastEnd = one.at();
                }
                known.removeIf(one -> one.at().isBefore(lastEnd.minus(ENDS_AGAIN)));
                isAway = false;
            } catch (IOException | JdbiException away) {
                if (!isAway) LOG.warn("Copies wait until database, storage and disk are there again.", away);
                isAway = true;
            }
            // Many send at once: what came meanwhile is looked at together.
            LockSupport.parkNanos(from + TimeUnit.MILLISECONDS.toNanos(RESTS_MILLIS) - System.nanoTime());
        }
    }

    /** Whose files came before this is asked for. */
    private List<Ended> ended() {
        return jdbi.withHandle(handle -> handle.createQuery("select p.name, r.name, t.ended from parts t"
                        + " join runs r on r.id = t.run_id join projects p on p.id = r.project_id"
                        + " where t.ended >= :since order by t.ended")
                .bind("since", lastEnd.minus(ENDS_AGAIN).atOffset(ZoneOffset.UTC))
                .map((row, context) -> new Ended(
                        row.getString(1),
                        row.getString(2),
                        row.getObject(3, OffsetDateTime.class).toInstant()))
                .list());
    }

    private boolean awaitNews() {
        synchronized (news) {
            try {
                long until = System.nanoTime() + LOOKED_EVERY_MILLIS * 1_000_000;
                for (long left = LOOKED_EVERY_MILLIS; !isNew && !isClosed && left > 0; ) {
                    news.wait(left);
                    left = (until - System.nanoTime()) / 1_000_000;
                }
            } catch (InterruptedException closed) {
                return false;
            }
            isNew = false;
            return !isClosed;
        }
    }

    private int look() throws IOException {
        long last = jdbi.withHandle(handle -> handle.createQuery("select coalesce(max(changed), 0) from uploads")
                .mapTo(Long.class)
                .one());
        if (last > newest) calmSince = System.nanoTime();
        newest = Math.max(newest, last);
        // Transactions that began before the newest was given its number are over by then.
        if (seen >= newest && System.nanoTime() - calmSince > LOOKED_AGAIN_FOR) return 0;
        List<Row> rows = jdbi.withHandle(handle -> handle.createQuery(
                        "select u.id, p.name, r.name, t.name, u.path, u.size, u.changed from uploads u"
                                + " join parts t on t.id = u.part_id join runs r on r.id = t.run_id"
                                + " join projects p on p.id = r.project_id"
                                + " where u.changed > :seen order by u.changed limit :batch")
                .bind("seen", Math.max(0, seen - AGAIN))
                .bind("batch", BATCH + AGAIN)
                .map((row, context) -> new Row(
                        row.getLong(1),
                        row.getString(2),
                        row.getString(3),
                        row.getString(4),
                        row.getString(5),
                        row.getLong(6),
                        row.getLong(7)))
                .list());
        Set<Path> begun = new LinkedHashSet<>();
        long whole = Long.MAX_VALUE;
        for (Row row : rows) {
            if (Long.valueOf(row.changed()).equals(copied.get(row.id()))) continue;
            Path run = runs(row.project()).resolve(row.run());
            Path file = inside(run.resolve("shards").resolve(row.part()), row.path());
            if (file == null) continue;
            long before = sizeOf(file);
            if (isBlocked(run, file)) continue; // by another of its own sender's files; all others go on
            if (copy(row, file, before)) copied.put(row.id(), row.changed());
            else whole = Math.min(whole, row.changed() - 1);
            boolean isDescribed = Files.exists(run.resolve("run.json"), LinkOption.NOFOLLOW_LINKS);
            if (row.path().equals("run.json") && (before < row.size() || !isDescribed)) begun.add(run);
            seen = Math.max(seen, row.changed());
        }
        seen = Math.min(seen, whole);
        for (Path run : begun) if (Files.isDirectory(run.resolve("shards"))) RunJoiner.join(List.of(), run);
        return Math.min(BATCH, rows.size());
    }

    /** Null where it would lie elsewhere. */
    private static @Nullable Path inside(Path part, String path) {
        try {
            Path file = part.resolve(path).normalize();
            return file.startsWith(part) && !file.equals(part) ? file : null;
        } catch (InvalidPathException none) {
            return null;
        }
    }

    /** Whether a folder would have to be where a file is, or a file where a folder is. */
    private static boolean isBlocked(Path run, Path file) {
        if (Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS)) return true;
        for (Path above = file.getParent(); above != null && !above.equals(run); above = above.getParent())
            if (Files.isRegularFile(above, LinkOption.NOFOLLOW_LINKS)) return true;
        return false;
    }

    /** -1 where it is not there. */
    private static long sizeOf(Path file) throws IOException {
        return Files.exists(file, LinkOption.NOFOLLOW_LINKS) ? Files.size(file) : -1;
    }

    /** Whether it is there now as far as it was sent. */
    private boolean copy(Row row, Path file, long here) throws IOException {
        if (here >= row.size()) return true;
        Files.createDirectories(file.getParent());
        long from = Math.max(0, here);
        try (InputStream in = new FirstBytes(uploads.open(row.id(), from), row.size() - from);
                OutputStream out = Files.newOutputStream(file, StandardOpenOption.CREATE, StandardOpenOption.APPEND)) {
            in.transferTo(out);
        }
        return Files.size(file) >= row.size();
    }

    @Override
    public void close() {
        synchronized (news) {
            isClosed = true;
            news.notifyAll();
        }
        try {
            thread.join(5_000);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
