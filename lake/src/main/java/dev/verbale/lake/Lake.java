package dev.verbale.lake;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.Sha256;
import dev.verbale.history.RunSummary;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.duckdb.DuckDBConnection;
import org.jspecify.annotations.Nullable;

/**
 * A folder with what runs came to, as Parquet files by table, project and day:
 *
 * <pre>
 * attempts/project=orto/day=2026-12-01/5c1d0f….parquet
 * manifest/project=orto/day=2026-12-01.json
 * </pre>
 *
 * <p>A file is never changed. What comes in is written beside what is there; where a day has many files they become one, by a new file. Which files
 * of a day count, its manifest says, which is replaced as one: who reads by it meets a day as it was before or as it is afterwards, and so does
 * who comes after a writer that was killed. One writer at a time: others wait.
 *
 * <p>Safe for several threads and processes of one machine.
 *
 * @param path the folder; need not be there yet
 * @since 0.2.0
 */
public record Lake(Path path) implements AnyLake {

    /** More files of one table on one day become one. */
    static final int LARGEST_COUNT = 8;

    private static final int MEGABYTES = 1_000;
    private static final long HELD_ROWS = 4_000_000; // held at once
    private static final int ROWS_OF_A_GROUP = 100_000;
    private static final Pattern OURS = Pattern.compile("_?[0-9a-f]{24}\\.parquet(\\.new)?");
    private static final Object ONE_WRITER = new Object();

    /**
     * What came in.
     *
     * @param runs how many
     * @param present how many were there already, and had no less
     * @param files how many were written
     * @param bytes of these files
     */
    public record Added(int runs, int present, int files, long bytes) {
        Added and(Added other) {
            return new Added(runs + other.runs, present + other.present, files + other.files, bytes + other.bytes);
        }
    }

    /** As {@link AnyLake#add}, of runs that are held. */
    public Added add(String project, List<LakeRun> runs) throws IOException {
        return add(project, runs.iterator());
    }

    /** {@inheritDoc} No more of them are held than come into one file. */
    @Override
    public Added add(String project, Iterator<LakeRun> runs) throws IOException {
        Partition.checked(project);
        Files.createDirectories(path);
        Path spill = Files.createTempDirectory("verbale-lake");
        synchronized (ONE_WRITER) {
            try (FileChannel channel = FileChannel.open(
                            path.resolve("_lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock lock = channel.lock();
                    DuckDBConnection engine =
                            ColumnEngine.open(MEGABYTES, spill).unwrap(DuckDBConnection.class)) {
                return new Adding(engine, project).all(runs);
            } catch (SQLException failed) {
                throw ColumnEngine.refused(failed);
            } finally {
                FolderTree.delete(spill);
            }
        }
    }

    @Override
    public List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException {
        Map<Long, DayManifest.StoredRun> there = new TreeMap<>();
        for (DayManifest day : DayManifest.all(path, project)) there.putAll(day.runs());
        return runs.stream()
                .filter(run -> {
                    DayManifest.StoredRun before = there.get(LakeId.ofRun(run.name(), run.started()));
                    var now =
                            new DayManifest.StoredRun(run.name(), run.started(), run.tests(), run.isComplete(), false);
                    return before == null || before.isLessThan(now);
                })
                .toList();
    }

    /**
     * Looks whether the engine is there that lakes need.
     *
     * @throws IOException where it is not; the message says what to do
     */
    public static void checkEngine() throws IOException {
        Path spill = Files.createTempDirectory("verbale-lake");
        try {
            ColumnEngine.open(MEGABYTES, spill).close();
        } catch (SQLException failed) {
            throw ColumnEngine.refused(failed);
        } finally {
            FolderTree.delete(spill);
        }
    }

    @Override
    public LakeTables tables(@Nullable String project) throws IOException {
        return LakeTables.of(this, project);
    }

    @Override
    public List<String> projects() throws IOException {
        return DayManifest.projects(path);
    }

    /** The folder of a table on a day. */
    Path folder(LakeTable table, Partition partition) {
        return path.resolve(table.word()).resolve(partition.folder());
    }

    /** Where a file that a manifest names lies: under its own name, or still under that which it was written with. */
    Path file(LakeTable table, Partition partition, String name) throws LakeException {
        Path folder = folder(table, partition);
        for (String one : List.of(name, fresh(name)))
            if (Files.isRegularFile(folder.resolve(one))) return folder.resolve(one);
        throw missing(folder.resolve(name).toString());
    }

    static LakeException missing(String file) {
        return new LakeException(
                file,
                "the manifest names it, and it is not there: what it had is missing. Bring it back, or delete the manifest of that day and add its runs again");
    }

    /** No engine takes such a file for one of a table. */
    private static String fresh(String name) {
        return "_" + name + ".new";
    }

    /** Runs that come in. */
    private final class Adding {

        private final DuckDBConnection engine;
        private final String project;
        private final KnownTests known = new KnownTests();
        private final Map<Long, LakeRun> waiting = new LinkedHashMap<>();
        private long rows;
        private @Nullable Partition day;
        private Added added = new Added(0, 0, 0, 0);

        Adding(DuckDBConnection engine, String project) {
            this.engine = engine;
            this.project = project;
        }

        Added all(Iterator<LakeRun> runs) throws IOException, SQLException {
            learn();
            while (runs.hasNext()) {
                LakeRun run = runs.next();
                Partition its = Partition.of(project, run.digest().started());
                if (!its.equals(day) || rows > HELD_ROWS) write();
                day = its;
                waiting.merge(run.id(), run, (one, other) -> one.stored().isLessThan(other.stored()) ? other : one);
                rows += 1L + run.digest().tests().size() * 4L;
            }
            write();
            return added;
        }

        /** What the lake says of this project's tests by now. */
        private void learn() throws IOException, SQLException {
            List<String> files = new ArrayList<>();
            for (DayManifest one : DayManifest.all(path, project)) {
                for (String name : one.files().getOrDefault(LakeTable.TESTS, List.of()))
                    files.add(file(LakeTable.TESTS, one.partition(), name).toString());
            }
            if (files.isEmpty()) return;
            try (Statement statement = engine.createStatement();
                    ResultSet found = statement.executeQuery(
                            "select test_id, max_by({'name': name, 'class': class_name, 'method': method_name, 'tags': tags, 'owner': owner}, seen) as description"
                                    + " from " + ColumnEngine.parquet(files, "false") + " group by test_id")) {
                while (found.next()) {
                    Object[] description = ((java.sql.Struct) found.getObject(2)).getAttributes();
                    known.add(
                            found.getLong(1),
                            KnownTests.description(
                                    String.valueOf(description[0]),
                                    (String) description[1],
                                    (String) description[2],
                                    String.valueOf(description[3]),
                                    (String) description[4]));
                }
            }
        }

        private void write() throws IOException, SQLException {
            Partition partition = day;
            if (partition == null || waiting.isEmpty()) return;
            DayManifest before = DayManifest.read(path, partition);
            Map<Long, DayManifest.StoredRun> runs = new TreeMap<>(before.runs());
            List<Long> replaced = new ArrayList<>();
            List<LakeRun> wanted = new ArrayList<>();
            waiting.forEach((id, run) -> {
                DayManifest.StoredRun there = runs.get(id);
                if (there != null && !there.isLessThan(run.stored())) return;
                if (there != null) replaced.add(id);
                runs.put(id, run.stored());
                wanted.add(run);
            });
            int present = waiting.size() - wanted.size();
            waiting.clear();
            rows = 0;
            added = added.and(new Added(wanted.size(), present, 0, 0));
            if (wanted.isEmpty()) return;
            RunRows.make(engine);
            try (var fresh = new RunRows(engine)) {
                for (LakeRun run : wanted) fresh.add(run, known);
            }
            Map<LakeTable, List<String>> files = new TreeMap<>();
            for (LakeTable table : LakeTable.values()) {
                List<String> names = write(table, before, runs, replaced);
                if (!names.isEmpty()) files.put(table, names);
            }
            var after = new DayManifest(partition, runs, files);
            after.write(path);
            settle(after);
        }

        /** Writes what came in of one table, together with what is there where that is too many files, or has to be another. */
        private List<String> write(
                LakeTable table, DayManifest before, Map<Long, DayManifest.StoredRun> runs, List<Long> replaced)
                throws IOException, SQLException {
            List<String> names = new ArrayList<>(before.files().getOrDefault(table, List.of()));
            boolean isAnew = names.size() >= LARGEST_COUNT || !replaced.isEmpty() && !names.isEmpty();
            String rows = "select * from " + RunRows.SCHEMA + "." + table.word();
            if (isAnew) {
                List<String> there = new ArrayList<>();
                for (String name : names)
                    there.add(file(table, before.partition(), name).toString());
                rows += " union all by name select * from " + ColumnEngine.parquet(there, "false");
                if (!replaced.isEmpty() && table != LakeTable.TESTS)
                    rows += " where run_id not in ("
                            + replaced.stream().map(String::valueOf).collect(Collectors.joining(", ")) + ")";
                names.clear();
            } else if (count(table) == 0) return names;
            String name = name(table, runs);
            Path folder = folder(table, before.partition());
            Files.createDirectories(folder);
            Path target = folder.resolve(fresh(name));
            Files.deleteIfExists(target);
            ColumnEngine.execute(
                    engine,
                    "copy (select " + table.names() + " from (" + rows + ") order by " + table.order() + ") to "
                            + ColumnEngine.text(target.toString())
                            + " (format parquet, compression zstd, row_group_size " + ROWS_OF_A_GROUP + ")");
            names.add(name);
            added = added.and(new Added(0, 0, 1, Files.size(target)));
            return names;
        }

        private long count(LakeTable table) throws SQLException {
            try (Statement statement = engine.createStatement();
                    ResultSet found =
                            statement.executeQuery("select count(*) from " + RunRows.SCHEMA + "." + table.word())) {
                found.next();
                return found.getLong(1);
            }
        }
    }

    /** Of what is in it: the same runs give the same name, and no other ones do. */
    private static String name(LakeTable table, Map<Long, DayManifest.StoredRun> runs) {
        MessageDigest digest = Sha256.digest();
        digest.update(table.word().getBytes(StandardCharsets.UTF_8));
        runs.forEach((id, run) -> digest.update((id + " " + run + "\n").getBytes(StandardCharsets.UTF_8)));
        return HexFormat.of().formatHex(digest.digest(), 0, 12) + ".parquet";
    }

    /** The manifest is there: its files get their names, and those that it no longer names go. */
    void settle(DayManifest manifest) throws IOException {
        for (LakeTable table : LakeTable.values()) {
            List<String> names = manifest.files().getOrDefault(table, List.of());
            Path folder = folder(table, manifest.partition());
            for (String name : names)
                if (Files.exists(folder.resolve(fresh(name))))
                    Files.move(folder.resolve(fresh(name)), folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
            if (!Files.isDirectory(folder)) continue;
            try (Stream<Path> all = Files.list(folder)) {
                for (Path file : all.toList()) {
                    String name = file.getFileName().toString();
                    if (OURS.matcher(name).matches() && !names.contains(name)) Files.delete(file);
                }
            }
        }
    }
}
