package dev.verbale.packing;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFiles;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.WholeFile;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.PlainFile;
import dev.verbale.sealing.RunSeal;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.zip.DeflaterOutputStream;
import org.jspecify.annotations.Nullable;

/**
 * Makes one file of a run, or of its page: a bag in a ZIP archive. The same run gives the same bytes. Journals that are packed as they are go
 * through as bytes, whatever is in them; where something is left out of a run, they are written anew, and the run says what it lacks.
 *
 * @since 0.2.0
 */
public final class RunPacker {

    /** What an entry takes beside its bytes, without its name: its heads in the archive, and its line in the manifest. */
    private static final int ENTRY = 230;

    private RunPacker() {}

    /**
     * A pack that was written.
     *
     * @param file it
     * @param files how many of the run are in it
     * @param bytes how large it is
     * @param leftOut what of the run is not in it, in words; empty where nothing is
     */
    public record Packed(Path file, int files, long bytes, String leftOut) {}

    /**
     * Packs a run.
     *
     * @param target replaced as a whole where it is there
     * @throws IOException where something cannot be read or written, or cannot be made as small as is asked for; then the target is as it was
     */
    public static Packed pack(RunFolder run, Path target, PackOptions options) throws IOException {
        if (options.isWhole()) {
            Map<String, Path> files = new TreeMap<>();
            for (Path file : RunFiles.of(run, Set.of())) files.put(run.nameInJournal(file), file);
            return write(run, target, files, "", Long.MAX_VALUE);
        }
        Path around = target.toAbsolutePath().normalize().getParent();
        if (around == null) throw new FileSystemException(target.toString(), null, "is no file");
        Files.createDirectories(around);
        Path work = Files.createTempDirectory(around, ".verbale-pack-");
        try {
            return reduced(run, target, options, work);
        } finally {
            FolderTree.delete(work);
        }
    }

    /**
     * Packs the folder of a page, for who only wants to look.
     *
     * @param run whose page it is
     */
    public static Packed packPage(RunFolder run, Path page, Path target) throws IOException {
        Map<String, Path> files = new TreeMap<>();
        try (var all = Files.walk(page)) {
            for (Path file : all.filter(PlainFile::isThere).toList())
                files.put(page.relativize(file).toString().replace('\\', '/'), file);
        }
        return write(run, target, files, "", Long.MAX_VALUE);
    }

    private static Packed reduced(RunFolder run, Path target, PackOptions options, Path work) throws IOException {
        List<ReducedJournal> journals = new ArrayList<>();
        for (RunFolder one : withShards(run))
            for (Path journal : one.journalFiles())
                if (PlainFile.isThere(journal)) journals.add(ReducedJournal.of(one, journal, options));
        Set<Path> wanted = new HashSet<>();
        for (ReducedJournal one : journals) one.files().forEach(file -> wanted.add(file.file()));

        Map<String, Path> files = new TreeMap<>();
        for (Path file : RunFiles.of(run, RunSeal.FILES)) { // a seal is of the whole
            Path normal = file.toAbsolutePath().normalize();
            if (isOwn(run, file) || wanted.contains(normal)) files.put(run.nameInJournal(file), file);
        }
        String says = rewrite(run, journals, files, null, work.resolve("first"));
        long room = options.maxBytes() - smallest(run, files, wanted);
        Set<Path> kept = new HashSet<>();
        List<PackedFile> candidates = new ArrayList<>();
        for (ReducedJournal one : journals) candidates.addAll(one.files());
        candidates.sort(PackedFile.IMPORTANT_FIRST);
        Map<Path, String> names = new HashMap<>();
        files.forEach((name, file) -> names.put(file.toAbsolutePath().normalize(), name));
        for (PackedFile one : candidates) {
            String name = names.get(one.file());
            if (name == null || kept.contains(one.file())) continue;
            long size = options.maxBytes() == Long.MAX_VALUE ? 0 : packedSize(run, name, one.file());
            if (size > room) {
                files.remove(name);
            } else {
                room -= size;
                kept.add(one.file());
            }
        }
        if (kept.size() < wanted.size()) says = rewrite(run, journals, files, kept, work.resolve("second"));
        return write(run, target, files, says, options.maxBytes());
    }

    private static List<RunFolder> withShards(RunFolder run) throws IOException {
        List<RunFolder> all = new ArrayList<>(List.of(run));
        all.addAll(run.shards());
        return all;
    }

    /** Whether it is a description or a journal, and no file of a test. */
    private static boolean isOwn(RunFolder run, Path file) {
        String name = run.nameInJournal(file).replaceFirst("^shards/[^/]+/", "");
        return name.equals("run.json") || name.startsWith("journals/") && name.endsWith(JournalFormat.FILE_SUFFIX);
    }

    /** Twice: what the run says of what is left out is known only when that was counted. */
    private static String rewrite(
            RunFolder run, List<ReducedJournal> journals, Map<String, Path> files, @Nullable Set<Path> kept, Path work)
            throws IOException {
        var reduction = new Reduction();
        write(run, journals, files, kept, reduction, "", work.resolve("counted"));
        String says = reduction.text();
        if (!says.isEmpty()) write(run, journals, files, kept, new Reduction(), says, work.resolve("written"));
        return says;
    }

    private static void write(
            RunFolder run,
            List<ReducedJournal> journals,
            Map<String, Path> files,
            @Nullable Set<Path> kept,
            Reduction reduction,
            String says,
            Path work)
            throws IOException {
        for (ReducedJournal one : journals) {
            String name = run.nameInJournal(one.journal());
            Path fresh = work.resolve(name);
            Files.createDirectories(fresh.getParent());
            if (one.write(fresh, kept, reduction, says)) files.put(name, fresh);
        }
    }

    private static long smallest(RunFolder run, Map<String, Path> files, Set<Path> wanted) throws IOException {
        long bytes = 4L * ENTRY;
        for (var file : files.entrySet())
            if (!wanted.contains(file.getValue().toAbsolutePath().normalize()))
                bytes += packedSize(run, file.getKey(), file.getValue());
        return bytes;
    }

    private static long packedSize(RunFolder run, String name, Path file) throws IOException {
        long heads = ENTRY + 3L * (run.name().length() + name.length());
        try (InputStream in = PlainFile.open(file)) {
            if (Bag.isDense(name, in)) return heads + Files.size(file) + Files.size(file) / 1_000;
        }
        var counting = new Counting();
        try (InputStream in = PlainFile.open(file);
                var deflating = new DeflaterOutputStream(counting)) {
            in.transferTo(deflating);
        }
        return heads + counting.bytes;
    }

    private static final class Counting extends OutputStream {
        long bytes;

        @Override
        public void write(int one) {
            bytes++;
        }

        @Override
        public void write(byte[] buffer, int from, int length) {
            bytes += length;
        }
    }

    private static Packed write(RunFolder run, Path target, Map<String, Path> files, String leftOut, long limit)
            throws IOException {
        var count = new int[1];
        WholeFile.write(target, fresh -> {
            try (OutputStream out = new BufferedOutputStream(
                    Files.newOutputStream(fresh, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
                var bag = new Bag(out, run.name());
                for (var file : files.entrySet())
                    try (InputStream in = PlainFile.open(file.getValue())) {
                        bag.add(run.name() + "/" + file.getKey(), in);
                    }
                count[0] = bag.files();
                bag.end(about(run, leftOut));
            }
            if (Files.size(fresh) > limit)
                throw new FileSystemException(
                        target.toString(),
                        null,
                        "without any attachment it has " + Files.size(fresh) + " bytes, which is more than " + limit
                                + ". Leave out more, such as what happened in tests that passed");
            return true;
        });
        return new Packed(target, count[0], Files.size(target), leftOut);
    }

    private static Map<String, String> about(RunFolder run, String leftOut) {
        Map<String, String> about = new LinkedHashMap<>();
        about.put("External-Identifier", run.name());
        about.put("External-Description", "A test run, recorded by Verbale");
        if (!leftOut.isEmpty()) about.put("Internal-Sender-Description", "Left out: " + leftOut);
        try {
            about.put(
                    "Bagging-Date",
                    RunDescription.read(run.runFile())
                            .started()
                            .atOffset(ZoneOffset.UTC)
                            .toLocalDate()
                            .toString());
        } catch (IOException undescribed) {
            // the day of the run, where that is known: the day of packing would make each pack another one
        }
        return about;
    }
}
