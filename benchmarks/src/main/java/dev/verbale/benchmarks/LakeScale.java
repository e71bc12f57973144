package dev.verbale.benchmarks;

import dev.verbale.folder.FolderTree;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.lake.Lake;
import dev.verbale.lake.LakeRun;
import dev.verbale.lake.LakeTables;
import dev.verbale.query.AnswerRows;
import dev.verbale.query.QueryException;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * How many bytes an attempt takes in a lake, how fast attempts come in, and how long questions take. Arguments: projects, runs a day of each, days, tests of a
 * run; a folder that stays, where it is to be asked again.
 */
public final class LakeScale {

    static final Path FILE = Path.of("lake.tsv");
    private static final Instant FIRST = Instant.parse("2026-01-01T22:00:00Z");

    private LakeScale() {}

    public static void main(String[] arguments) throws Exception {
        int projects = argument(arguments, 0, 10);
        int runs = argument(arguments, 1, 4);
        int days = argument(arguments, 2, 60);
        int tests = argument(arguments, 3, 1_000);
        boolean stays = arguments.length > 4;
        Path folder = stays ? Path.of(arguments[4]) : Files.createTempDirectory("lake-scale");
        try {
            var lake = new Lake(folder.resolve("lake"));
            if (lake.projects().isEmpty()) fill(lake, projects, runs, days, tests);
            long attempts = (long) projects * runs * days * tests;
            keep("slowest question, all teams", attempts, ask(lake, null));
            keep("slowest question, one team", attempts, ask(lake, "team0"));
        } finally {
            if (!stays) FolderTree.delete(folder);
        }
    }

    /** For the picture, see {@link GoalsPlot}: a line for each kind and size, of which the last counts. */
    private static void keep(String kind, long attempts, double seconds) throws IOException {
        Files.writeString(
                FILE,
                String.format(Locale.ROOT, "%s\t%d\t%.2f%n", kind, attempts, seconds),
                StandardOpenOption.CREATE,
                StandardOpenOption.APPEND);
    }

    private static int argument(String[] arguments, int at, int usual) {
        return arguments.length > at ? Integer.parseInt(arguments[at]) : usual;
    }

    private static void fill(Lake lake, int projects, int runs, int days, int tests) throws IOException {
        long begun = System.nanoTime();
        long attempts = (long) projects * runs * days * tests;
        for (int i = 0; i < projects; i++) {
            var nights = new Nights(i, tests);
            int project = i;
            lake.add(
                    "team" + project,
                    IntStream.range(0, days * runs)
                            .mapToObj(run -> LakeRun.of(
                                    nights.run(run, Duration.ofDays(1).dividedBy(runs))))
                            .iterator());
        }
        double seconds = (System.nanoTime() - begun) / 1e9;
        System.out.printf(
                Locale.ROOT,
                "%,d attempts came in, in %.0f s: %,.0f a second%n",
                attempts,
                seconds,
                attempts / seconds);
        for (String table : List.of("attempts", "tests", "steps", "reasons", "runs", "manifest")) {
            long bytes = bytes(lake.path().resolve(table));
            System.out.printf(
                    Locale.ROOT, "%-9s %,14d bytes  %6.2f an attempt%n", table, bytes, (double) bytes / attempts);
        }
    }

    private static long bytes(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return 0;
        try (Stream<Path> files = Files.walk(folder)) {
            long bytes = 0;
            for (Path file : files.filter(Files::isRegularFile).toList()) bytes += Files.size(file);
            return bytes;
        }
    }

    /** @return how long the slowest took, in seconds */
    private static double ask(Lake lake, @Nullable String project) throws IOException, QueryException {
        double slowest = 0;
        long begun = System.nanoTime();
        try (LakeTables tables = LakeTables.of(lake, project)) {
            System.out.printf(
                    Locale.ROOT,
                    "%s: opened in %.1f s%n",
                    project == null ? "all projects" : project,
                    (System.nanoTime() - begun) / 1e9);
            for (Path question : questions()) {
                begun = System.nanoTime();
                var count = new int[1];
                tables.reader().ask(Files.readString(question), new AnswerRows() {
                    @Override
                    public void columns(List<String> names) {}

                    @Override
                    public boolean row(List<@Nullable Object> values) {
                        count[0]++;
                        return true;
                    }
                });
                System.out.printf(
                        Locale.ROOT,
                        "  %-22s %6.2f s  %d rows%n",
                        question.getFileName(),
                        (System.nanoTime() - begun) / 1e9,
                        count[0]);
                slowest = Math.max(slowest, (System.nanoTime() - begun) / 1e9);
            }
        }
        return slowest;
    }

    private static List<Path> questions() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("../docs/questions"))) {
            return files.filter(file -> file.toString().endsWith(".sql"))
                    .sorted()
                    .toList();
        }
    }

    /** Nights of one team: some tests flicker, some break for a while, and times vary. */
    private static final class Nights {

        private final Random random;
        private final int project;
        private final List<String> keys = new ArrayList<>();
        private final int[] usual;
        private final List<TestDigest.Origin> origins = new ArrayList<>();

        Nights(int project, int tests) {
            this.project = project;
            random = new Random(project);
            usual = new int[tests];
            for (int i = 0; i < tests; i++) {
                String name = "dev.orto.team" + project + ".Bed" + i / 20 + "Test";
                keys.add(name + ".grows_in_the_" + i % 20 + "th_week_of_the_year()");
                usual[i] = 5 + random.nextInt(4_000);
                origins.add(new TestDigest.Origin(
                        name, "grows_in_the_" + i % 20 + "th_week_of_the_year", List.of(), "Ada"));
            }
        }

        RunDigest run(int number, Duration pause) {
            List<TestDigest> tests = new ArrayList<>();
            for (int i = 0; i < keys.size(); i++) {
                boolean failed = i % 97 == 3 && random.nextInt(5) == 0 || i % 211 == 7 && number / 9 % 4 == 1;
                boolean recovered = failed && random.nextBoolean();
                boolean isBad = failed && !recovered;
                tests.add(new TestDigest(
                        keys.get(i),
                        "Bed " + i / 20 + " › grows in the " + i % 20 + "th week of the year",
                        isBad ? Outcome.FAILED : Outcome.PASSED,
                        (int) (usual[i] * (0.9 + random.nextDouble() * 0.3)),
                        recovered ? 2 : 1,
                        recovered,
                        isBad ? "reason" + i % 40 : null,
                        List.of(),
                        origins.get(i)));
            }
            return new RunDigest(
                    "night-" + project + "-" + number,
                    FIRST.plus(pause.multipliedBy(number)),
                    Duration.ofMinutes(40),
                    Map.of("branch", "main"),
                    true,
                    true,
                    tests,
                    IntStream.range(0, 40)
                            .mapToObj(i -> new ReasonDigest("reason" + i, "no water in bed " + i))
                            .toList());
        }
    }
}
