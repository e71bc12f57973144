package dev.verbale.benchmarks;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.report.Page;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Damages a run folder many times and reads what is left: {@code bin/bench MutatedFolders [COUNT] [RUN] [SEED]}. Nothing may throw but
 * what says which file is wrong, nothing may take seconds, and a run that failed may not come out as one that passed without a word.
 */
public final class MutatedFolders {

    private static final long SLOW_NANOS = 5_000_000_000L;
    private static final int PAGE_EACH = 25;

    private final Random random;
    private final Path work;
    private final List<Path> originals;
    private final Path run;
    private final Map<String, Integer> outcomes = new TreeMap<>();

    private MutatedFolders(Path run, long seed, Path work) throws IOException {
        this.run = run;
        this.work = work;
        random = new Random(seed);
        try (Stream<Path> all = Files.walk(run)) {
            originals = all.filter(Files::isRegularFile)
                    .filter(file -> !run.relativize(file).startsWith("page"))
                    .toList();
        }
    }

    /** The count, the run, and what chance begins with. */
    public static void main(String[] arguments) throws IOException {
        int count = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 10_000;
        Path run =
                Path.of(arguments.length > 1 ? arguments[1] : "target/verbale").toAbsolutePath();
        long seed = arguments.length > 2 ? Long.parseLong(arguments[2]) : 7_731;
        Path work = Files.createTempDirectory("mutated");
        var mutated = new MutatedFolders(run, seed, work);
        if (RunReader.read(run).counts().needingAttention() == 0)
            throw new IllegalArgumentException(run + " has nothing that failed: what is damaged in it proves nothing");
        for (int i = 0; i < count; i++) mutated.one(i);
        mutated.outcomes.forEach((what, times) -> System.out.printf("%,8d %s%n", times, what));
    }

    private void one(int number) throws IOException {
        Path copy = work.resolve("run");
        delete(copy);
        for (Path file : originals) {
            Path to = copy.resolve(run.relativize(file).toString());
            Files.createDirectories(to.getParent());
            Files.copy(file, to);
        }
        String how = damage(copy.resolve(
                run.relativize(originals.get(random.nextInt(originals.size()))).toString()));
        long from = System.nanoTime();
        String what = looked(copy, number % PAGE_EACH == 0);
        if (System.nanoTime() - from > SLOW_NANOS) what = "SLOW " + what;
        outcomes.merge(what, 1, Integer::sum);
        if (Character.isUpperCase(what.charAt(0))) System.out.printf("%s: number %d, %s%n", what, number, how);
    }

    private String looked(Path copy, boolean withPage) {
        try {
            Run read = RunReader.read(copy);
            Headline.of(read);
            FailureReason.of(read);
            RunDigest.of(read);
            if (withPage) Page.write(read, work.resolve("page"));
            boolean says = read.counts().needingAttention() > 0
                    || !read.problems().isEmpty()
                    || !read.incomplete().sentence().isEmpty();
            if (!says) return "GREEN: a run that failed, and no word of it";
            return read.problems().isEmpty() ? "read, and nothing is missing" : "read, and it is said what is wrong";
        } catch (IOException named) {
            return "refused, by name";
        } catch (RuntimeException | Error fault) {
            return "FAULT " + fault.getClass().getName() + " at " + fault.getStackTrace()[0];
        }
    }

    private String damage(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        int at = bytes.length == 0 ? 0 : random.nextInt(bytes.length);
        int other = bytes.length == 0 ? 0 : random.nextInt(bytes.length);
        int from = Math.min(at, other);
        int to = Math.max(at, other);
        int kind = random.nextInt(8);
        switch (kind) {
            case 0 -> Files.write(file, Arrays.copyOf(bytes, at));
            case 1 -> {
                if (bytes.length > 0) bytes[at] ^= (byte) (1 << random.nextInt(8));
                Files.write(file, bytes);
            }
            case 2 ->
                Files.write(file, joined(Arrays.copyOf(bytes, from), Arrays.copyOfRange(bytes, to, bytes.length)));
            case 3 -> Files.write(file, joined(bytes, Arrays.copyOfRange(bytes, from, to)));
            case 4 -> Files.delete(file);
            case 5 -> {
                byte[] noise = new byte[random.nextInt(200)];
                random.nextBytes(noise);
                Files.write(
                        file,
                        joined(joined(Arrays.copyOf(bytes, at), noise), Arrays.copyOfRange(bytes, at, bytes.length)));
            }
            case 6 -> Files.write(file, new byte[0]);
            default -> {
                Files.delete(file);
                Files.createDirectory(file);
            }
        }
        return "damage " + kind + " of " + file.getFileName();
    }

    private static byte[] joined(byte[] one, byte[] two) {
        byte[] both = Arrays.copyOf(one, one.length + two.length);
        System.arraycopy(two, 0, both, one.length, two.length);
        return both;
    }

    private static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) return;
        try (Stream<Path> all = Files.walk(folder)) {
            all.sorted(Comparator.reverseOrder()).forEach(file -> {
                try {
                    Files.delete(file);
                } catch (IOException stays) {
                    throw new UncheckedIOException(stays);
                }
            });
        }
    }
}
