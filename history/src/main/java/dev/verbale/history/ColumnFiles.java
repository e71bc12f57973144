package dev.verbale.history;

import dev.verbale.folder.WholeFile;
import dev.verbale.history.RunColumns.Times;
import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.CRC32;
import org.jspecify.annotations.Nullable;

/**
 * Columns beside the digests that they were made of, so that a question over years of nights reads no texts. They may be deleted at any
 * time: what is not there, torn, or older than its digest is made anew. Where they cannot be written, questions take longer.
 *
 * <p>Safe for several threads and processes: each file is written whole, and its digest is the truth.
 */
final class ColumnFiles {

    private static final String FOLDER = ".columns";
    private static final String OF_RUN = ".run";
    private static final String OF_TESTS = ".tests";
    private static final String OF_ORIGINS = ".origins";
    private static final int FORMAT = 0x56430002;
    private static final int CHECKSUM_BYTES = 8;
    private static final int MAX_TEXT = 1 << 20;

    private final Path folder;
    private final Map<String, SuiteTable> tables = new ConcurrentHashMap<>();

    /** @param history the folder that the digests lie in */
    ColumnFiles(Path history) {
        folder = history.resolve(FOLDER);
    }

    /** The same object for the same tests: five thousand names a run would be most of the heap. */
    RunColumns shared(RunColumns columns) {
        return columns.in(tables.computeIfAbsent(columns.table().id(), id -> columns.table()));
    }

    /** What was made of {@code digest}; empty where nothing was, or it changed since. */
    Optional<RunColumns> read(Path digest) {
        try {
            Path file = file(digest);
            DataInputStream in = checked(file);
            Stamp stamp = Stamp.of(digest);
            if (!new Stamp(in.readLong(), in.readLong()).equals(stamp)) return Optional.empty();
            RunSummary run = run(in);
            SuiteTable table = table(text(in));
            List<ReasonDigest> reasons = new ArrayList<>();
            int count = number(in);
            for (int i = 0; i < count; i++) reasons.add(new ReasonDigest(text(in), text(in)));
            return Optional.of(new RunColumns(run, table, reasons, unusual(in), new InFile(file, digest, stamp)));
        } catch (IOException | RuntimeException nothing) {
            return Optional.empty();
        }
    }

    /** What {@code digest} is now, to be asked before it is read; empty where it is no file. */
    static Optional<Stamp> stamp(Path digest) {
        try {
            return Optional.of(Stamp.of(digest));
        } catch (IOException none) {
            return Optional.empty();
        }
    }

    /** Keeps {@code columns}, that were made of {@code digest} as it was then, where that can be done. */
    void write(Path digest, Stamp stamp, RunColumns columns) {
        try {
            Files.createDirectories(folder);
            Path tests = folder.resolve(columns.table().id() + OF_TESTS);
            if (!isWhole(tests))
                write(tests, out -> {
                    number(out, columns.table().keys().size());
                    for (String key : columns.table().keys()) text(out, key);
                    for (String name : columns.table().names()) text(out, name);
                });
            Path origins = folder.resolve(columns.table().id() + OF_ORIGINS);
            if (!isWhole(origins))
                write(origins, out -> origins(out, columns.table().origins().all()));
            write(file(digest), out -> {
                out.writeLong(stamp.bytes());
                out.writeLong(stamp.modified());
                run(out, columns.run());
                text(out, columns.table().id());
                number(out, columns.reasons().size());
                for (ReasonDigest reason : columns.reasons()) {
                    text(out, reason.id());
                    text(out, reason.title());
                }
                unusual(out, columns.unusual());
                numbers(out, columns.times().millis());
                numbers(out, columns.times().workers());
            });
        } catch (IOException | RuntimeException itIsMadeAnew) {
            // nobody asked for these files
        }
    }

    /** Deletes what was made of digests that are no more. */
    void prune(List<Path> digests) {
        List<String> there = digests.stream()
                .map(digest -> String.valueOf(file(digest).getFileName()))
                .toList();
        var known = new java.util.HashSet<>(there);
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder, "*" + OF_RUN)) {
            for (Path one : all) if (!known.contains(String.valueOf(one.getFileName()))) Files.deleteIfExists(one);
        } catch (IOException | RuntimeException none) {
            // they are passed over
        }
    }

    private Path file(Path digest) {
        return folder.resolve(digest.getFileName() + OF_RUN);
    }

    /** What tells that a digest is the one that was read. */
    record Stamp(long bytes, long modified) {
        static Stamp of(Path digest) throws IOException {
            BasicFileAttributes found =
                    Files.readAttributes(digest, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            if (!found.isRegularFile()) throw new IOException("it is no regular file");
            return new Stamp(found.size(), found.lastModifiedTime().toMillis());
        }
    }

    private SuiteTable table(String id) throws IOException {
        SuiteTable known = tables.get(id);
        if (known != null) return known;
        DataInputStream in = checked(folder.resolve(id + OF_TESTS));
        Path origins = folder.resolve(id + OF_ORIGINS);
        if (!isWhole(origins)) throw new IOException("the origins of its tests are gone"); // both are made anew
        int count = number(in);
        String[] keys = new String[count];
        String[] names = new String[count];
        for (int i = 0; i < count; i++) keys[i] = text(in);
        for (int i = 0; i < count; i++) names[i] = text(in);
        SuiteTable read = new SuiteTable(List.of(keys), List.of(names), new OriginsInFile(origins), id);
        SuiteTable other = tables.putIfAbsent(id, read);
        return other == null ? read : other;
    }

    /** Origins that are read when they are asked for. */
    private record OriginsInFile(Path file) implements SuiteTable.Origins {

        @Override
        public List<Origin> all() {
            try {
                return origins(checked(file));
            } catch (IOException | RuntimeException gone) {
                return List.of(); // somebody deleted it since
            }
        }
    }

    private static List<Origin> origins(DataInputStream in) throws IOException {
        String[] texts = new String[number(in)];
        for (int i = 0; i < texts.length; i++) texts[i] = text(in);
        Origin[] all = new Origin[number(in)];
        for (int i = 0; i < all.length; i++) {
            String className = textOrNull(in, texts);
            String methodName = textOrNull(in, texts);
            String owner = textOrNull(in, texts);
            String[] tags = new String[number(in)];
            for (int tag = 0; tag < tags.length; tag++) tags[tag] = texts[number(in)];
            all[i] = new Origin(className, methodName, List.of(tags), owner);
        }
        return List.of(all);
    }

    private static @Nullable String textOrNull(DataInputStream in, String[] texts) throws IOException {
        int number = number(in);
        return number == 0 ? null : texts[number - 1];
    }

    /** Each text once: tests of one class have its name in common. */
    private static void origins(DataOutputStream out, List<Origin> all) throws IOException {
        Map<String, Integer> texts = new LinkedHashMap<>();
        for (Origin one : all) {
            for (String text : new @Nullable String[] {one.className(), one.methodName(), one.owner()})
                if (text != null) texts.putIfAbsent(text, texts.size());
            for (String tag : one.tags()) texts.putIfAbsent(tag, texts.size());
        }
        number(out, texts.size());
        for (String text : texts.keySet()) text(out, text);
        number(out, all.size());
        for (Origin one : all) {
            for (String text : new @Nullable String[] {one.className(), one.methodName(), one.owner()})
                number(out, text == null ? 0 : 1 + texts.getOrDefault(text, -1));
            number(out, one.tags().size());
            for (String tag : one.tags()) number(out, texts.getOrDefault(tag, 0));
        }
    }

    /** Times that are read when they are asked for. */
    private record InFile(Path file, Path digest, Stamp stamp) implements Times {

        @Override
        public int[] millis() {
            return read(true);
        }

        @Override
        public int[] workers() {
            return read(false);
        }

        private int[] read(boolean wantsMillis) {
            try {
                DataInputStream in = checked(file);
                if (new Stamp(in.readLong(), in.readLong()).equals(stamp)) {
                    run(in);
                    text(in);
                    int reasons = number(in);
                    for (int i = 0; i < 2 * reasons; i++) text(in);
                    unusual(in);
                    int[] millis = numbers(in);
                    return wantsMillis ? millis : numbers(in);
                }
            } catch (IOException | RuntimeException gone) {
                // somebody deleted it, or wrote another one, since
            }
            return new int[0];
        }
    }

    private interface Content {
        void to(DataOutputStream out) throws IOException;
    }

    private static void write(Path file, Content content) throws IOException {
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeInt(FORMAT);
        content.to(out);
        var sum = new CRC32();
        sum.update(bytes.toByteArray());
        out.writeLong(sum.getValue());
        WholeFile.write(file, fresh -> {
            Files.write(fresh, bytes.toByteArray());
            return true;
        });
    }

    private static boolean isWhole(Path file) {
        try {
            checked(file);
            return true;
        } catch (IOException torn) {
            return false;
        }
    }

    /** Behind the number of the format; its checksum is right. */
    private static DataInputStream checked(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        int size = bytes.length - CHECKSUM_BYTES;
        if (size < 4) throw new IOException("it is torn");
        var sum = new CRC32();
        sum.update(bytes, 0, size);
        if (new DataInputStream(new ByteArrayInputStream(bytes, size, CHECKSUM_BYTES)).readLong() != sum.getValue())
            throw new IOException("it is torn");
        var in = new DataInputStream(new ByteArrayInputStream(bytes, 0, size));
        if (in.readInt() != FORMAT) throw new IOException("it is of another version");
        return in;
    }

    private static RunSummary run(DataInputStream in) throws IOException {
        return new RunSummary(
                text(in),
                Instant.ofEpochSecond(in.readLong(), in.readInt()),
                Duration.ofMillis(in.readLong()),
                text(in),
                text(in),
                number(in),
                number(in),
                text(in),
                in.readBoolean(),
                in.readBoolean());
    }

    private static void run(DataOutputStream out, RunSummary run) throws IOException {
        text(out, run.name());
        long second = run.started().getEpochSecond();
        out.writeLong(second);
        out.writeInt((int)
                Duration.between(Instant.ofEpochSecond(second), run.started()).toNanos());
        out.writeLong(run.duration().toMillis());
        text(out, run.branch());
        text(out, run.commit());
        number(out, run.tests());
        number(out, run.needingAttention());
        text(out, run.part());
        out.writeBoolean(run.isComplete());
        out.writeBoolean(run.isMadeUp());
    }

    private static List<Unusual> unusual(DataInputStream in) throws IOException {
        List<String> outcomes = new ArrayList<>();
        int kinds = number(in);
        for (int i = 0; i < kinds; i++) outcomes.add(text(in));
        int count = number(in);
        List<Unusual> all = new ArrayList<>(Math.min(count, MAX_TEXT));
        for (int i = 0; i < count; i++)
            all.add(new Unusual(
                    number(in),
                    Outcome.ofWord(outcomes.get(number(in))),
                    number(in),
                    in.readBoolean(),
                    number(in) - 1));
        return all;
    }

    private static void unusual(DataOutputStream out, List<Unusual> all) throws IOException {
        List<String> outcomes =
                all.stream().map(one -> one.outcome().word()).distinct().toList();
        number(out, outcomes.size());
        for (String outcome : outcomes) text(out, outcome);
        number(out, all.size());
        for (Unusual one : all) {
            number(out, one.position());
            number(out, outcomes.indexOf(one.outcome().word()));
            number(out, one.attempts());
            out.writeBoolean(one.recovered());
            number(out, one.reason() + 1);
        }
    }

    private static int[] numbers(DataInputStream in) throws IOException {
        int[] all = new int[Math.min(number(in), in.available())];
        for (int i = 0; i < all.length; i++) all[i] = number(in) - 1;
        return all;
    }

    private static void numbers(DataOutputStream out, int[] all) throws IOException {
        number(out, all.length);
        for (int one : all) number(out, Math.min(one, Integer.MAX_VALUE - 1) + 1);
    }

    private static String text(DataInputStream in) throws IOException {
        int head = number(in);
        int length = head >>> 1;
        if (length > Math.min(MAX_TEXT, in.available())) throw new IOException("a text is longer than the file");
        if ((head & 1) == 0) return new String(in.readNBytes(length), StandardCharsets.UTF_8);
        char[] chars = new char[length];
        for (int i = 0; i < length; i++) chars[i] = (char) number(in);
        return new String(chars);
    }

    private static void text(DataOutputStream out, String text) throws IOException {
        if (text.length() > MAX_TEXT / 3) throw new IOException("a text is too long to be kept here");
        if (isUnicode(text)) {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            number(out, bytes.length << 1);
            out.write(bytes);
        } else {
            number(out, text.length() << 1 | 1);
            for (int i = 0; i < text.length(); i++) number(out, text.charAt(i));
        }
    }

    /** Half a pair of surrogates is no character, and would be a question mark. */
    private static boolean isUnicode(String text) {
        return text.codePoints()
                .noneMatch(point -> point >= Character.MIN_SURROGATE && point <= Character.MAX_SURROGATE);
    }

    /** Seven bits a byte, as most numbers are small. */
    private static int number(DataInputStream in) throws IOException {
        int number = 0;
        for (int shift = 0; shift < 35; shift += 7) {
            int next = in.read();
            if (next < 0) throw new IOException("it is torn");
            number |= (next & 0x7F) << shift;
            if (next < 0x80) return number;
        }
        throw new IOException("a number is too long");
    }

    private static void number(DataOutputStream out, int number) throws IOException {
        int rest = number;
        while ((rest & ~0x7F) != 0) {
            out.write(rest & 0x7F | 0x80);
            rest >>>= 7;
        }
        out.write(rest);
    }
}
