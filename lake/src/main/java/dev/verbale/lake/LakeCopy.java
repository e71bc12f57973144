package dev.verbale.lake;

import dev.verbale.folder.Sha256;
import dev.verbale.folder.WholeFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What this machine has of a {@link SharedLake}: a lake in a folder, and for each manifest in it which one of the storage it is. One that was changed here
 * and did not get there is brought again. For one thread, while nobody else has the folder.
 */
final class LakeCopy {

    /** Which manifests these are: version, hash and name of each, in lines. */
    private static final String VERSIONS = "_versions";

    /** A manifest of the storage as it is here. */
    private record Known(String version, String sha256) {}

    private final LakeStore store;
    private final Lake lake;
    private final Map<String, Known> known = new TreeMap<>();

    /** What was sent last, and may count for nothing. */
    private final Set<String> sentLast = new HashSet<>();

    LakeCopy(LakeStore store, Lake lake) throws IOException {
        this.store = store;
        this.lake = lake;
        try {
            for (String line : Files.readAllLines(lake.path().resolve(VERSIONS))) {
                String[] parts = line.split("\t", -1);
                if (parts.length == 3) known.put(parts[2], new Known(parts[0], parts[1]));
            }
        } catch (NoSuchFileException none) {
            // nothing was brought yet
        }
    }

    private void keep() throws IOException {
        List<String> lines = new ArrayList<>();
        known.forEach((name, one) -> lines.add(one.version + "\t" + one.sha256 + "\t" + name));
        WholeFile.write(lake.path().resolve(VERSIONS), fresh -> {
            Files.write(fresh, lines);
            return true;
        });
    }

    /**
     * Makes the manifests those of the storage.
     *
     * @param project whose; null for those of all
     */
    void refresh(@Nullable String project) throws IOException {
        String prefix = DayManifest.FOLDER + "/" + Partition.PROJECT + (project == null ? "" : project + "/");
        Map<String, String> there = store.list(prefix);
        for (var one : there.entrySet()) {
            String name = one.getKey();
            if (DayManifest.isName(name) && !isHere(name, one.getValue())) bringManifest(name);
        }
        for (String name : manifests()) if (name.startsWith(prefix) && !there.containsKey(name)) forget(name);
        keep();
    }

    /** Makes the manifest of a day that of the storage, and leaves those of others, which may be on their way there. */
    void refresh(Partition day) throws IOException {
        bringManifest(DayManifest.name(day));
        keep();
    }

    /** Those that are here, be they known or not. */
    private List<String> manifests() throws IOException {
        Path folder = lake.path().resolve(DayManifest.FOLDER);
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> all = Files.walk(folder)) {
            return all.map(file -> lake.path().relativize(file).toString().replace('\\', '/'))
                    .filter(DayManifest::isName)
                    .toList();
        }
    }

    private boolean isHere(String name, String version) throws IOException {
        Known here = known.get(name);
        Path file = lake.path().resolve(name);
        return here != null
                && here.version.equals(version)
                && Files.isRegularFile(file)
                && Sha256.of(file).equals(here.sha256);
    }

    private void bringManifest(String name) throws IOException {
        Path file = lake.path().resolve(name);
        Files.createDirectories(file.getParent());
        String version = store.bring(name, file);
        if (version == null) forget(name); // it went meanwhile
        else {
            known.put(name, new Known(version, Sha256.of(file)));
            lake.settle(DayManifest.named(lake.path(), name)); // what it names no more is of no use here either
        }
    }

    private void forget(String name) throws IOException {
        known.remove(name);
        Files.deleteIfExists(lake.path().resolve(name));
    }

    /** Brings the files that manifests name, of a project or of all, as far as they are not here. */
    void bring(@Nullable String project) throws IOException {
        for (DayManifest day : DayManifest.all(lake.path(), project)) bring(day, null);
    }

    /** The files of a day, which may have none. */
    void bring(Partition day) throws IOException {
        bring(DayManifest.read(lake.path(), day), null);
    }

    /** By these, what is said of a test already is not said again. */
    void bringTests(String project) throws IOException {
        for (DayManifest day : DayManifest.all(lake.path(), project)) bring(day, LakeTable.TESTS);
    }

    private void bring(DayManifest day, @Nullable LakeTable only) throws IOException {
        for (var of : day.files().entrySet()) {
            if (only != null && of.getKey() != only) continue;
            for (String name : of.getValue()) {
                Path file = lake.folder(of.getKey(), day.partition()).resolve(name);
                if (Files.isRegularFile(file)) continue;
                Files.createDirectories(file.getParent());
                String there = of.getKey().word() + "/" + day.partition().folder() + "/" + name;
                if (store.bring(there, file) == null) throw Lake.missing(store.address(there));
            }
        }
    }

    /** Takes back what was sent for a manifest that did not get there; what the one names that did, stays. */
    void withdraw(Partition day) throws IOException {
        sentLast.removeAll(DayManifest.read(lake.path(), day).fileNames());
        for (String name : sentLast) store.delete(name);
        sentLast.clear();
    }

    /**
     * Sends what came in here on a day: its files, then its manifest, then away with what counts no more.
     *
     * @param before what the storage had of that day
     * @return what was sent; null where somebody else replaced the manifest since: then it counts for nothing
     */
    Lake.@Nullable Added send(DayManifest before) throws IOException {
        Partition day = before.partition();
        DayManifest now = DayManifest.read(lake.path(), day);
        var sent = new Lake.Added(0, 0, 0, 0);
        if (now.equals(before)) return sent;
        String name = DayManifest.name(day);
        Set<String> had = new HashSet<>(before.fileNames());
        sentLast.clear();
        for (String file : now.fileNames()) {
            if (had.remove(file)) continue;
            Path here = lake.path().resolve(file);
            store.put(file, here);
            sentLast.add(file);
            sent = sent.and(new Lake.Added(0, 0, 1, Files.size(here)));
        }
        byte[] manifest = Files.readAllBytes(lake.path().resolve(name));
        Known read = known.get(name);
        String version = store.replace(name, manifest, read == null ? null : read.version);
        if (version == null) return null;
        known.put(name, new Known(version, Sha256.of(manifest)));
        keep();
        for (String file : had) store.delete(file);
        return sent;
    }
}
