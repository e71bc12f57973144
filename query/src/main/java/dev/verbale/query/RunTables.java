package dev.verbale.query;

import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.DigestReader;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.TableCache;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.JdbiException;

/**
 * Fills the tables that {@link TableReader} asks: of whole runs, in memory or in a PostgreSQL database, and there also of what is remembered
 * of many. All of it can be made again from the runs at any time; nothing else is kept there.
 *
 * <p>For one thread at a time. In a PostgreSQL database several of these may fill the same tables: they wait for one another.
 *
 * @since 0.2.0
 */
public final class RunTables implements AutoCloseable {

    private static final String OURS = ";DATABASE_TO_LOWER=TRUE;TIME ZONE=UTC";
    private static final String OWNER = "verbale";

    /** Of whoever fills a PostgreSQL database; any number, the same everywhere. */
    private static final long LOCK = 7_301_426_951L;

    private final Database database;
    private final Handle handle;
    private boolean lacksIndexes;

    private RunTables(Database database) throws QueryException {
        this.database = database;
        try {
            handle = Jdbi.create(database::connect).open();
        } catch (JdbiException refused) {
            throw translated(refused);
        }
        try {
            if (!database.isOurs()) handle.execute("select pg_advisory_lock(?)", LOCK);
            var versions = new TableVersions(handle);
            lacksIndexes = !database.isInMemory() && !versions.isThere();
            versions.bringTo(lacksIndexes ? TableVersions.WITHOUT_INDEXES : TableVersions.NEWEST);
            if (database.isOurs()) allowOurReader();
        } catch (JdbiException | IllegalStateException refused) {
            handle.close();
            throw translated(refused);
        }
    }

    private void allowOurReader() {
        handle.execute("set max_memory_rows " + Integer.MAX_VALUE); // of memory there is an end, and of a disk too late
        handle.execute("create user if not exists " + Database.READER + " password ''");
        handle.execute("alter user " + Database.READER + " set password ''"); // a user may change its own
        handle.execute("grant select on schema " + Database.SCHEMA + " to " + Database.READER);
    }

    /** In memory, for as long as it is open. */
    public static RunTables inMemory() throws QueryException {
        return new RunTables(new Database("jdbc:h2:mem:" + UUID.randomUUID() + OURS, OWNER, ""));
    }

    /**
     * In a PostgreSQL database, in a schema named {@code verbale} that is made where it is missing.
     *
     * @param url such as {@code jdbc:postgresql://host/name}
     * @param user one who may make that schema, or owns it
     */
    public static RunTables at(String url, String user, String password) throws QueryException {
        return new RunTables(Database.ofTeam(url, user, password));
    }

    /**
     * Adds a whole run; one that is there already is passed over.
     *
     * @param labels what a team's rules call failures, by the ids of the tests
     * @throws QueryException where the database refuses it
     */
    public void add(Run run, Map<String, String> labels) throws QueryException {
        fill(names -> {
            if (!sources().containsKey(StoredRun.source(run))) store(names, one -> one.store(run, labels));
        });
    }

    /**
     * What {@link #update} did.
     *
     * @param added how many runs came in
     * @param removed how many went, as they are remembered no longer
     * @param all how many there are now
     */
    public record Update(int added, int removed, int all) {}

    /**
     * Brings the tables to what {@code folder} remembers: reads the files that are new, and forgets those that are gone.
     *
     * @param problems hears of each file, or line, that cannot be read; the rest is there
     * @throws QueryException where the database refuses it
     * @throws IOException where the folder cannot be listed
     */
    public Update update(HistoryFolder folder, Consumer<Problem> problems) throws QueryException, IOException {
        List<Path> files = folder.files();
        var counts = new int[2];
        fill(names -> {
            Map<String, Long> there = sources();
            List<Path> fresh = new ArrayList<>();
            Set<String> gone = new HashSet<>(there.keySet());
            for (Path file : files) {
                String name = String.valueOf(file.getFileName());
                boolean isThere = there.getOrDefault(name, -1L) == size(file);
                if (isThere) gone.remove(name);
                else fresh.add(file);
            }
            for (String source : gone) remove(source);
            counts[1] = gone.size();
            var cache = new TableCache();
            for (Path file : fresh) {
                Optional<RunDigest> digest = DigestReader.readWithoutSteps(file, problems, cache);
                if (digest.isEmpty()) continue;
                String name = String.valueOf(file.getFileName());
                long size = size(file);
                store(names, one -> one.store(digest.get(), name, size));
                counts[0]++;
            }
        });
        return new Update(counts[0], counts[1], sources().size());
    }

    private static long size(Path file) {
        try {
            return Files.size(file);
        } catch (IOException gone) {
            return 0;
        }
    }

    /** Makes tables in place of the views. */
    void replaceViews(Consumer<Handle> making) throws QueryException {
        try {
            handle.execute("set schema " + Database.SCHEMA);
            making.accept(handle);
            handle.execute("grant select on schema " + Database.SCHEMA + " to " + Database.READER);
        } catch (JdbiException refused) {
            throw translated(refused);
        }
    }

    /** What fills the tables. */
    @FunctionalInterface
    private interface Filling {
        void fill(StoredNames names);
    }

    private void fill(Filling filling) throws QueryException {
        try {
            filling.fill(new StoredNames(handle));
            if (lacksIndexes) new TableVersions(handle).bringTo(TableVersions.NEWEST);
            lacksIndexes = false;
        } catch (JdbiException | IllegalStateException refused) {
            throw translated(refused);
        }
    }

    /** All of a run or nothing of it. */
    private void store(StoredNames names, Consumer<StoredRun> storing) {
        handle.useTransaction(within -> {
            try (var run = new StoredRun(
                    within,
                    names,
                    (int) largest("stored_runs", "run_id") + 1,
                    largest("stored_attempts", "attempt_id"))) {
                storing.accept(run);
            }
        });
    }

    private long largest(String table, String number) {
        return handle.createQuery("select coalesce(max(" + number + "), 0) from " + Database.SCHEMA + "." + table)
                .mapTo(Long.class)
                .one();
    }

    private Map<String, Long> sources() {
        Map<String, Long> sources = new HashMap<>();
        handle.createQuery("select source, source_size from " + Database.SCHEMA + ".stored_runs")
                .map((row, context) -> Map.entry(row.getString(1), row.getLong(2)))
                .forEach(entry -> sources.put(entry.getKey(), entry.getValue()));
        return sources;
    }

    private void remove(String source) {
        handle.useTransaction(within -> {
            within.execute(
                    "delete from " + Database.SCHEMA + ".stored_results where run_id in (select run_id from "
                            + Database.SCHEMA + ".stored_runs where source = ?)",
                    source);
            within.execute("delete from " + Database.SCHEMA + ".stored_runs where source = ?", source);
        });
    }

    /** Asks these tables, as a user who may only read; for as long as they are open. */
    public TableReader reader() {
        return TableReader.of(database.isOurs() ? database.asReader() : database);
    }

    /**
     * Lets a role of a PostgreSQL database read the tables, and nothing else.
     *
     * @throws QueryException where there is no such role, or the database refuses it
     */
    public void allow(String role) throws QueryException {
        String quoted = '"' + role.replace("\"", "\"\"") + '"';
        try {
            handle.execute("grant usage on schema " + Database.SCHEMA + " to " + quoted);
            handle.execute("grant select on all tables in schema " + Database.SCHEMA + " to " + quoted);
        } catch (JdbiException refused) {
            throw translated(refused);
        }
    }

    private static QueryException translated(RuntimeException thrown) {
        for (Throwable one = thrown; one != null; one = one.getCause())
            if (one instanceof SQLException refused) return new QueryException(SqlMessage.of(refused), thrown);
        return new QueryException(String.valueOf(thrown.getMessage()), thrown);
    }

    @Override
    public void close() {
        handle.close();
    }
}
