package dev.verbale.lake;

import dev.verbale.history.RunSummary;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * A lake in a storage that several machines write at once, such as a bucket. What is read and written of it is in a copy on this machine; only what the
 * copy lacks is brought.
 *
 * <p>Files of the storage are never changed: what comes in is put there first, and counts with the manifest of its day, which takes the place of the
 * one that was read only where nobody else replaced that meanwhile; else the runs of that day are added to what the others wrote. A writer that is
 * killed leaves files that count for nothing.
 *
 * <p>Safe for several threads and processes.
 *
 * @since 0.2.0
 */
public final class SharedLake implements AnyLake {

    /** So many tests, and not many more, are held at once. */
    private static final long HELD_TESTS = 400_000;

    private static final int TRIES = 20;
    /** By their copies: locks of files are the whole JVM's. */
    private static final Map<Path, Object> IN_THIS_JVM = new ConcurrentHashMap<>();

    private final LakeStore store;
    private final Lake copy;

    /** @param copy a folder for the copy, of this lake alone; need not be there yet */
    public SharedLake(LakeStore store, Path copy) {
        this.store = store;
        this.copy = new Lake(copy);
    }

    private interface Work<T> {
        T with(LakeCopy copy) throws IOException;
    }

    /** One process at a time has the copy. */
    private <T> T alone(Work<T> work) throws IOException {
        Path folder = copy.path().toAbsolutePath().normalize();
        synchronized (IN_THIS_JVM.computeIfAbsent(folder, path -> new Object())) {
            Files.createDirectories(copy.path());
            try (FileChannel channel = FileChannel.open(
                            copy.path().resolve("_copy.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock lock = channel.lock()) {
                if (!lock.isValid()) throw new IOException(copy.path() + " cannot be locked");
                return work.with(new LakeCopy(store, copy));
            }
        }
    }

    @Override
    public List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException {
        return alone(held -> {
            held.refresh(Partition.checked(project));
            return copy.lacking(project, runs);
        });
    }

    @Override
    public List<String> projects() throws IOException {
        return store.list(DayManifest.FOLDER + "/" + Partition.PROJECT).keySet().stream()
                .filter(DayManifest::isName)
                .map(DayManifest::project)
                .distinct()
                .sorted()
                .toList();
    }

    /** {@inheritDoc} Only files of that project are brought. */
    @Override
    public LakeTables tables(@Nullable String project) throws IOException {
        return alone(held -> {
            refreshed(held, project, () -> held.bring(project));
            return LakeTables.of(copy, project);
        });
    }

    private interface Bringing {
        void all() throws IOException;
    }

    private static void refreshed(LakeCopy held, @Nullable String project, Bringing files) throws IOException {
        held.refresh(project);
        try {
            files.all();
        } catch (LakeException gone) { // a writer made one of many files since
            held.refresh(project);
            files.all();
        }
    }

    @Override
    public Lake.Added add(String project, Iterator<LakeRun> runs) throws IOException {
        Partition.checked(project);
        return alone(held -> {
            var all = new Lake.Added(0, 0, 0, 0);
            while (runs.hasNext()) {
                List<LakeRun> some = new ArrayList<>();
                for (long tests = 0; runs.hasNext() && tests < HELD_TESTS; ) {
                    LakeRun run = runs.next();
                    some.add(run);
                    tests += run.digest().tests().size();
                }
                all = all.and(add(held, project, some));
            }
            return all;
        });
    }

    private Lake.Added add(LakeCopy held, String project, List<LakeRun> runs) throws IOException {
        Map<Partition, List<LakeRun>> days = new LinkedHashMap<>();
        for (LakeRun run : runs)
            days.computeIfAbsent(Partition.of(project, run.digest().started()), day -> new ArrayList<>())
                    .add(run);
        refreshed(held, project, () -> {
            held.bringTests(project);
            for (Partition day : days.keySet()) held.bring(day);
        });
        Map<Partition, DayManifest> before = new LinkedHashMap<>();
        for (Partition day : days.keySet()) before.put(day, DayManifest.read(copy.path(), day));
        Lake.Added added = copy.add(project, runs);
        var sent = new Lake.Added(added.runs(), added.present(), 0, 0);
        // In the order in which they were written: what one says of a test is said by none behind it.
        for (var day : before.entrySet()) {
            Lake.Added one = held.send(day.getValue());
            for (int i = 0; one == null; i++) {
                if (i == TRIES)
                    throw new LakeException(
                            store.address(DayManifest.name(day.getKey())),
                            "others replace it all the time. What came in of that day and later ones was not added: do so again");
                held.refresh(day.getKey());
                held.bring(day.getKey());
                held.withdraw(day.getKey());
                DayManifest read = DayManifest.read(copy.path(), day.getKey());
                copy.add(project, days.getOrDefault(day.getKey(), List.of()));
                one = held.send(read);
            }
            sent = sent.and(one);
        }
        return sent;
    }
}
