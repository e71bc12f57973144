package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.io.SequenceInputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.statement.UnableToExecuteStatementException;
import org.jspecify.annotations.Nullable;

/**
 * Files on their way, and those that came. Bytes that were acknowledged are in the database until the part of the run is over, and then
 * in the storage: all that a hub knows is there, and another may go on with it.
 */
final class Uploads implements AutoCloseable {

    static final int MAX_FILES = 200_000;
    static final long MAX_SIZE = 4L << 30;

    private static final int KNOWN_PARTS = 10_000;
    private static final int STORED_AT_ONCE = 8;

    private final Jdbi jdbi;
    private final StoredObjects objects;

    /** Parts that were sent to since this hub began, as each of their files asks for them. */
    private final Map<PartOf, Part> parts = new ConcurrentHashMap<>();

    /** Whose uploads are, which never changes. */
    private final Map<Long, String> projects = new ConcurrentHashMap<>();

    /** Files of a part go into the storage side by side: one that is not on this machine takes its time for each. */
    private final ExecutorService storing = Executors.newFixedThreadPool(STORED_AT_ONCE, task -> {
        Thread thread = new Thread(task, "hub-storing");
        thread.setDaemon(true);
        return thread;
    });

    Uploads(Jdbi jdbi, StoredObjects objects) {
        this.jdbi = jdbi;
        this.objects = objects;
    }

    private record PartOf(String project, String run, String part) {}

    /** @param files that it has, as far as this hub knows: a row that counts them would be waited for by each that is sent */
    private record Part(long id, AtomicInteger files) {}

    /** Where a file belongs. */
    record Target(String project, String run, String part, String path) {}

    /**
     * A file that was begun.
     *
     * @param size how much of it there is
     * @param isNew whether it was begun now
     */
    record Upload(long id, String project, long size, boolean isNew) {}

    /** Why something is not taken, for whoever sends it. */
    static final class Refused extends Exception {
        private static final long serialVersionUID = 1;
        private final int status;

        Refused(int status, String message) {
            super(message);
            this.status = status;
        }

        int status() {
            return status;
        }
    }

    /** Begins a file with its first bytes. One that is there already stays as it is. */
    Upload create(Target target, byte[] first) throws Refused {
        var of = new PartOf(target.project(), target.run(), target.part());
        Part known = parts.get(of);
        try {
            return create(target, first, known == null ? added(of) : known);
        } catch (UnableToExecuteStatementException gone) {
            if (known == null) throw gone;
            return create(target, first, added(of)); // its run went meanwhile, and comes anew
        }
    }

    private Part added(PartOf of) {
        Part part = jdbi.inTransaction(handle -> part(handle, of));
        if (parts.size() >= KNOWN_PARTS) parts.clear();
        parts.put(of, part);
        return part;
    }

    private Upload create(Target target, byte[] first, Part part) throws Refused {
        return jdbi.inTransaction(handle -> {
            int made = handle.createUpdate("insert into uploads (part_id, path, size, changed)"
                            + " values (:part, :path, :size, nextval('changes')) on conflict do nothing")
                    .bind("part", part.id())
                    .bind("path", target.path())
                    .bind("size", first.length)
                    .execute();
            Upload there = handle.createQuery("select id, size from uploads where part_id = :part and path = :path")
                    .bind("part", part.id())
                    .bind("path", target.path())
                    .map((row, context) -> new Upload(row.getLong(1), target.project(), row.getLong(2), made == 1))
                    .one();
            if (made == 1) {
                if (part.files().incrementAndGet() > MAX_FILES)
                    throw new Refused(422, "a part of a run has " + MAX_FILES + " files at the most");
                if (first.length > 0) chunk(handle, there.id(), 0, first);
            }
            return there;
        });
    }

    private static Part part(Handle handle, PartOf of) {
        long project = Projects.idOrNew(handle, of.project());
        handle.execute("insert into runs (project_id, name) values (?, ?) on conflict do nothing", project, of.run());
        long run = handle.createQuery("select id from runs where project_id = :project and name = :name")
                .bind("project", project)
                .bind("name", of.run())
                .mapTo(Long.class)
                .one();
        handle.execute("insert into parts (run_id, name) values (?, ?) on conflict do nothing", run, of.part());
        return handle.createQuery("select t.id, (select count(*) from uploads u where u.part_id = t.id)"
                        + " from parts t where t.run_id = :run and t.name = :name")
                .bind("run", run)
                .bind("name", of.part())
                .map((row, context) -> new Part(row.getLong(1), new AtomicInteger(row.getInt(2))))
                .one();
    }

    private static long number(@Nullable Object value) {
        return value instanceof Number number ? number.longValue() : 0;
    }

    private static void chunk(Handle handle, long upload, long at, byte[] bytes) {
        handle.createUpdate("insert into chunks (upload_id, at, bytes) values (:upload, :at, :bytes)")
                .bind("upload", upload)
                .bind("at", at)
                .bind("bytes", bytes)
                .execute();
    }

    /** Whose an upload is; empty where there is none. */
    Optional<String> project(long id) {
        String known = projects.get(id);
        if (known != null) return Optional.of(known);
        Optional<String> project = find(id).map(Upload::project);
        if (projects.size() >= KNOWN_PARTS) projects.clear();
        project.ifPresent(name -> projects.put(id, name));
        return project;
    }

    Optional<Upload> find(long id) {
        return jdbi.withHandle(handle -> handle.createQuery(
                        "select u.id, p.name, u.size from uploads u join parts t on t.id = u.part_id"
                                + " join runs r on r.id = t.run_id join projects p on p.id = r.project_id where u.id = :id")
                .bind("id", id)
                .map((row, context) -> new Upload(row.getLong(1), row.getString(2), row.getLong(3), false))
                .findOne());
    }

    /**
     * Puts bytes behind what is there.
     *
     * @return how much of it there is now; where that is not {@code at} and the bytes, they were not taken
     */
    long append(long id, long at, byte[] bytes) throws Refused {
        if (at + bytes.length > MAX_SIZE) throw new Refused(413, "a file has " + MAX_SIZE + " bytes at the most");
        return jdbi.inTransaction(handle -> {
            boolean isNext = bytes.length > 0
                    && handle.execute(
                                    "update uploads set size = ?, changed = nextval('changes') where id = ? and size = ?",
                                    at + bytes.length,
                                    id,
                                    at)
                            == 1;
            if (isNext) {
                chunk(handle, id, at, bytes);
                return at + bytes.length;
            }
            return handle.createQuery("select size from uploads where id = :id")
                    .bind("id", id)
                    .mapTo(Long.class)
                    .findOne()
                    .orElse(0L); // its run has gone
        });
    }

    /** What is in an upload from {@code from} on, as it is now. */
    InputStream open(long id, long from) throws IOException {
        Map<String, @Nullable Object> row =
                jdbi.withHandle(handle -> handle.createQuery("select object, stored from uploads where id = :id")
                        .bind("id", id)
                        .mapToMap()
                        .one());
        Object object = row.get("object");
        long stored = number(row.get("stored"));
        InputStream chunks = new ChunkStream(jdbi, id, Math.max(from, stored));
        if (object == null || from >= stored) return chunks;
        return new SequenceInputStream(objects.open(object.toString(), from), chunks);
    }

    /**
     * A part of a run is over: what is there goes into the storage.
     *
     * @param hashes of the files as the sender has them, by path
     * @return in lines what is not there as the sender has it; none where all is
     */
    List<String> end(String project, String run, String part, Map<String, String> hashes) throws IOException {
        List<Map<String, @Nullable Object>> there = jdbi.withHandle(handle -> handle.createQuery(
                        "select u.id, u.path, u.size, u.object, u.stored from uploads u join parts t on t.id = u.part_id"
                                + " join runs r on r.id = t.run_id join projects p on p.id = r.project_id"
                                + " where p.name = :project and r.name = :run and t.name = :part order by u.path")
                .bind("project", project)
                .bind("run", run)
                .bind("part", part)
                .mapToMap()
                .list());
        Set<String> paths = new HashSet<>();
        for (Map<String, @Nullable Object> row : there) paths.add(String.valueOf(row.get("path")));
        Map<String, String> wrong = new LinkedHashMap<>();
        for (String path : hashes.keySet()) wrong.put(path, "is not there");
        Map<String, Future<String>> stored = new HashMap<>();
        for (Map<String, @Nullable Object> row : there)
            stored.put(String.valueOf(row.get("path")), storing.submit(() -> stored(row)));
        for (Map.Entry<String, Future<String>> one : stored.entrySet()) {
            String path = one.getKey();
            String hash = ended(one.getValue());
            if (!hashes.containsKey(path)) wrong.put(path, "is there and was not named");
            else if (hash.equals(hashes.get(path))) wrong.remove(path);
            else wrong.put(path, "has another content there");
            for (int at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1))
                if (paths.contains(path.substring(0, at)))
                    wrong.put(path, "cannot be copied there, as one of its folders is a file");
        }
        jdbi.useHandle(handle -> handle.createUpdate(
                        "update parts set ended = current_timestamp where name = :part and run_id ="
                                + " (select r.id from runs r join projects p on p.id = r.project_id"
                                + " where p.name = :project and r.name = :run)")
                .bind("part", part)
                .bind("project", project)
                .bind("run", run)
                .execute());
        return wrong.entrySet().stream()
                .map(one -> one.getKey() + ": " + one.getValue())
                .toList();
    }

    private static String ended(Future<String> stored) throws IOException {
        try {
            return stored.get();
        } catch (ExecutionException failed) {
            if (failed.getCause() instanceof IOException away) throw away;
            if (failed.getCause() instanceof RuntimeException away) throw away;
            throw new IOException(failed);
        } catch (InterruptedException ends) {
            throw new InterruptedIOException("the hub ends");
        }
    }

    /** The hash of an upload whose bytes are all in the storage when this returns. */
    private String stored(Map<String, @Nullable Object> row) throws IOException {
        long id = number(row.get("id"));
        long size = number(row.get("size"));
        long stored = number(row.get("stored"));
        Object before = row.get("object");
        if (before != null && stored == size) return before.toString();
        String hash;
        try (InputStream content = new FirstBytes(open(id, 0), size)) {
            hash = objects.put(content);
        }
        jdbi.useTransaction(handle -> {
            handle.execute(
                    "update uploads set object = ?, stored = ? where id = ? and stored < ?", hash, size, id, size);
            handle.execute("delete from chunks where upload_id = ? and at < ?", id, size);
        });
        return hash; // what was there before goes with a later sweep: another hub may be about to need it
    }

    /** What is under way goes on: its question is still answered. */
    @Override
    public void close() {
        storing.shutdown();
    }
}
