package dev.verbale.hub;

import dev.verbale.folder.FolderTree;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.lang.ref.SoftReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.JdbiException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What is remembered of each project's runs. It is in the database, and stays when a run goes; a folder of this hub's own has it as everybody's
 * history folder does. A run is remembered when one that sends it says that this was all, by a thread of its own: a large one takes seconds.
 */
final class Histories implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Histories.class);

    /** Another hub may have remembered one. */
    private static final long LOOKED_EVERY_MILLIS = 1_000;

    private static final int BATCH = 50;

    /** Numbers are given in one order and seen in another, as transactions end: so many are looked at again. */
    private static final int AGAIN = 200;

    /** Files named as runs, which say how the file is called that is remembered of them. */
    private static final String NAMES = "names";

    private final Jdbi jdbi;
    private final Path folder;
    private boolean isAway;
    private final Thread thread = new Thread(this::keepUp, "hub-history");
    private final Set<Sent> waiting = new LinkedHashSet<>();
    private final List<Sent> later = new ArrayList<>();
    private final Set<Long> known = new HashSet<>();
    private final Set<String> changed = new LinkedHashSet<>();
    private final Map<String, Long> versions = new ConcurrentHashMap<>();
    private final Map<String, Kept> kept = new ConcurrentHashMap<>();
    private final Map<String, Object> reading = new ConcurrentHashMap<>();
    private Consumer<String> listener = project -> {};
    private long seen;
    private boolean isClosed;

    Histories(Jdbi jdbi, Path folder) {
        this.jdbi = jdbi;
        this.folder = folder;
        thread.setDaemon(true);
    }

    /** A run whose copy is as it was sent when a part of it was over. */
    record Sent(String project, Path run, Instant over) {

        String name() {
            return String.valueOf(run.getFileName());
        }
    }

    private record Kept(long version, SoftReference<History> history) {}

    private record Row(long id, String project, String run, String file) {}

    void start() {
        thread.start();
    }

    /** Of a project, in the format of everybody's. */
    HistoryFolder of(String project) {
        return new HistoryFolder(folder.resolve(project));
    }

    /** As it is now; what cannot be read of it is passed over. Kept while there is memory for it. */
    History read(String project) throws IOException {
        long now = version(project);
        History there = kept(project, now);
        if (there != null) return there;
        synchronized (
                reading.computeIfAbsent(project, one -> new Object())) { // a long one is read once, however many ask
            there = kept(project, now);
            if (there != null) return there;
            History read = of(project).read(problem -> {});
            kept.put(project, new Kept(now, new SoftReference<>(read)));
            return read;
        }
    }

    private @Nullable History kept(String project, long version) {
        Kept before = kept.get(project);
        return before == null || before.version() < version
                ? null
                : before.history().get();
    }

    /** Another number after each run of the project. */
    long version(String project) {
        return versions.getOrDefault(project, 0L);
    }

    void ended(Sent sent) {
        synchronized (waiting) {
            waiting.add(sent);
            waiting.notifyAll();
        }
    }

    private void keepUp() {
        for (List<Sent> sent = next(); sent != null; sent = next()) {
            sent.addAll(later);
            later.clear();
            for (Sent one : sent) remember(one);
            try {
                while (fetch() == BATCH + AGAIN) {}
                isAway = false;
                for (String project : changed) read(project); // it is turned into columns before somebody asks
                changed.clear();
            } catch (IOException | JdbiException away) {
                if (!isAway) LOG.warn("Runs are remembered when database and disk are there again.", away);
                isAway = true;
            }
        }
    }

    /** Null where it is closed. */
    private @Nullable List<Sent> next() {
        synchronized (waiting) {
            try {
                if (waiting.isEmpty() && !isClosed) waiting.wait(LOOKED_EVERY_MILLIS);
            } catch (InterruptedException closed) {
                return null;
            }
            if (isClosed) return null;
            List<Sent> next = new ArrayList<>(waiting);
            waiting.clear();
            return next;
        }
    }

    private void remember(Sent sent) {
        try {
            if (isRemembered(sent)) return;
            RunDigest digest = RunDigest.of(RunReader.read(sent.run()));
            Path own = Files.createTempDirectory(Files.createDirectories(folder), "made-");
            try {
                Path file = new HistoryFolder(own).add(digest);
                put(sent, file, digest.needingAttention() > 0 || !digest.isComplete());
            } finally {
                FolderTree.delete(own);
            }
        } catch (JdbiException away) {
            later.add(sent); // it is asked again in a second
        } catch (IOException | RuntimeException unreadable) {
            LOG.warn("A run is not remembered, as it cannot be read.", unreadable);
        }
    }

    private boolean isRemembered(Sent sent) {
        return jdbi.withHandle(handle -> handle.createQuery("select count(*) from remembered m"
                                + " join projects p on p.id = m.project_id"
                                + " where p.name = :project and m.run = :run and m.over >= :over")
                        .bind("project", sent.project())
                        .bind("run", sent.name())
                        .bind("over", sent.over().atOffset(ZoneOffset.UTC))
                        .mapTo(Long.class)
                        .one())
                > 0;
    }

    /** With a new number, by which other hubs see it. */
    private void put(Sent sent, Path file, boolean needsAttention) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        OffsetDateTime over = sent.over().atOffset(ZoneOffset.UTC);
        jdbi.useTransaction(handle -> {
            long project = Projects.idOrNew(handle, sent.project());
            handle.execute("delete from remembered where project_id = ? and run = ?", project, sent.name());
            handle.createUpdate("insert into remembered (project_id, run, file, over, needs_attention, bytes)"
                            + " values (:project, :run, :file, :over, :attention, :bytes) on conflict do nothing")
                    .bind("project", project)
                    .bind("run", sent.name())
                    .bind("file", String.valueOf(file.getFileName()))
                    .bind("over", over)
                    .bind("attention", needsAttention)
                    .bind("bytes", bytes)
                    .execute();
        });
    }

    /** Brings what is new in the database into the folder. */
    private int fetch() throws IOException {
        List<Row> rows = jdbi.withHandle(handle -> handle.createQuery(
                        "select m.id, p.name, m.run, m.file from remembered m"
                                + " join projects p on p.id = m.project_id where m.id > :seen order by m.id limit :batch")
                .bind("seen", Math.max(0, seen - AGAIN))
                .bind("batch", BATCH + AGAIN)
                .map((row, context) -> new Row(row.getLong(1), row.getString(2), row.getString(3), row.getString(4)))
                .list());
        for (Row row : rows) {
            if (!known.contains(row.id()) && write(row)) changed(row.project());
            known.add(row.id());
            seen = Math.max(seen, row.id());
        }
        known.removeIf(id -> id <= seen - 2L * AGAIN);
        return rows.size();
    }

    private void changed(String project) {
        versions.merge(project, 1L, Long::sum);
        changed.add(project);
        listener.accept(project);
    }

    /** @param changed gets each project of which more is remembered now; before it starts */
    void onChange(Consumer<String> changed) {
        listener = changed;
    }

    /** @return whether the folder did not have it so */
    private boolean write(Row row) throws IOException {
        HistoryFolder history = of(row.project());
        Path name = history.path().resolve(NAMES).resolve(row.run());
        String own = row.id() + " " + row.file();
        String before = Files.exists(name) ? Files.readString(name) : "";
        if (before.equals(own)) return false;
        List<byte[]> bytes = jdbi.withHandle(handle -> handle.createQuery("select bytes from remembered where id = :id")
                .bind("id", row.id())
                .mapTo(byte[].class)
                .list());
        if (bytes.isEmpty()) return false; // there is a newer one
        Files.createDirectories(name.getParent());
        Path fresh = Files.createTempFile(history.path(), "fresh-", "");
        Files.write(fresh, bytes.get(0));
        Files.move(fresh, history.path().resolve(row.file()), StandardCopyOption.REPLACE_EXISTING);
        String old = before.substring(before.indexOf(' ') + 1);
        // Last: whoever asks meanwhile finds the run twice, of which the fuller counts, and never misses it.
        if (before.contains(" ") && !old.equals(row.file()))
            Files.deleteIfExists(history.path().resolve(old));
        Files.writeString(name, own);
        return true;
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
