package dev.verbale.benchmarks;

import dev.orto.nights.MadeUpTeam;
import dev.orto.nights.MadeUpTest;
import dev.orto.nights.SuiteShape;
import dev.verbale.folder.FolderTree;
import dev.verbale.history.Disturbance;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.TestHistory;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.digest.RunDigest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * What is claimed each night of suites of many thousands of tests, beside what is true of them. Arguments: tests of a suite, nights, teams, how
 * often a failing test is tried again. The first sixty nights are only remembered.
 */
public final class Claims {

    private static final int KNOWN_AFTER = 60;
    private static final int WITHIN = 5;

    /** A test that failed so often, or less, may be flaky or break now and then: nobody can tell. */
    private static final int FEW = 2;

    private static final int NIGHTS_THAT_COUNT = 100;
    private static final double LEAST_GROWTH = 1.05;
    private static final double LEAST_SLOW_GROWTH = 1.15;
    private static final int ALL = Integer.MAX_VALUE;

    /** Shorter ones are nobody's concern, and are not judged. */
    private static final int LEAST_MILLIS = 100;

    private final Map<String, int[]> shares = new LinkedHashMap<>();
    private final MadeUpTeam team;
    private final Map<String, Integer> nightOf = new HashMap<>();
    private final Set<Integer> outages = new HashSet<>();
    private final HistoryFolder folder;
    private final History all;

    private Claims(MadeUpTeam team, int nights, Path path) throws IOException {
        this.team = team;
        this.folder = new HistoryFolder(path);
        for (int night = 0; night < nights; night++) {
            for (RunDigest run : team.next()) {
                folder.add(run);
                nightOf.put(run.run(), night);
            }
            if (team.wasOutage()) outages.add(night);
        }
        all = folder.read(problem -> {
            throw new IllegalStateException(problem.sentence());
        });
    }

    public static void main(String[] arguments) throws IOException {
        int tests = argument(arguments, 0, 10_000);
        int nights = argument(arguments, 1, 160);
        int teams = argument(arguments, 2, 1);
        int retries = argument(arguments, 3, 0);
        Map<String, int[]> shares = new LinkedHashMap<>();
        for (int i = 0; i < teams; i++) {
            Path path = Files.createTempDirectory("claims");
            try {
                var team = new MadeUpTeam("team" + i, SuiteShape.usual(tests).withRetries(retries), i);
                var claims = new Claims(team, nights, path);
                for (int night = KNOWN_AFTER; night < nights; night++) claims.judge(night);
                claims.shares.forEach((what, share) -> add(shares, what, share[0], share[1]));
            } finally {
                FolderTree.delete(path);
            }
        }
        double all = (double) (nights - KNOWN_AFTER) * teams;
        shares.forEach((what, share) -> System.out.printf(
                Locale.ROOT,
                "%-64s %,8d of %,8d  %5.1f %%  %.2f a night%n",
                what,
                share[0],
                share[1],
                100.0 * share[0] / share[1],
                share[1] / all));
    }

    private static int argument(String[] arguments, int at, int usual) {
        return arguments.length > at ? Integer.parseInt(arguments[at]) : usual;
    }

    private static void add(Map<String, int[]> shares, String what, int is, int of) {
        int[] share = shares.computeIfAbsent(what, one -> new int[2]);
        share[0] += is;
        share[1] += of;
    }

    private void count(String what, boolean is) {
        add(shares, what, is ? 1 : 0, 1);
    }

    /** With {@code -Dclaims.wrong}, which those are. */
    private void wrong(int night, String what, History main, String key, Object why) {
        if (System.getProperty("claims.wrong") == null) return;
        String row = main.test(key).map(TestHistory::row).orElse("");
        System.out.printf(
                "%d %s %s %s %s rate %.2f%n",
                night, what, row, key, why, team.test(key).rate(night));
    }

    private int night(RunSummary run) {
        return nightOf.getOrDefault(run.name(), -1);
    }

    private void judge(int night) {
        History main = all.only(run -> run.branch().equals("main") && night(run) <= night);
        for (RunSummary run : main.runs()) if (night(run) == night) news(night, main, run);
        flaky(night, main);
        slower(night, main);
        for (Disturbance one : main.disturbances())
            if (night(one.run()) == night) count("a night not itself: true", outages.contains(night));
        if (outages.contains(night))
            count("an outage: found", main.disturbances().stream().anyMatch(one -> night(one.run()) == night));
    }

    private RunDigest digest(RunSummary run) {
        return folder.digest(run.name(), run.started(), problem -> {}).orElseThrow();
    }

    private void news(int night, History main, RunSummary now) {
        RunSummary baseline = null;
        for (RunSummary run : main.runs()) if (run.started().isBefore(now.started())) baseline = run;
        if (baseline == null) return; // its clock was far behind
        int before = night(baseline);
        Comparison comparison = Comparison.of(digest(baseline), digest(now), main);
        for (Change change : comparison.newFailures()) {
            MadeUpTest test = team.test(change.after().key());
            boolean isBroken = test.isBroken(night) && !test.isBroken(before);
            boolean isKnown = failures(main, change.after().key()) > FEW;
            boolean isClaimed = !change.isOfFlaky() && !change.failedTogether();
            if (outages.contains(night)) continue; // those are judged as one
            if (isBroken != isClaimed && (isBroken || isKnown))
                wrong(
                        night,
                        isBroken ? "missed" : "not new",
                        main,
                        change.after().key(),
                        change.flakiness());
            if (isBroken) count("new: found on the first night", isClaimed);
            if (isClaimed && (isBroken || isKnown)) count("new: true", isBroken);
            if (isClaimed && !isBroken && !isKnown)
                count("  nobody can tell yet: true, for it is flaky", test.wasFlaky(night));
            if (change.isOfFlaky()) count("a failure of a flaky test: true", !isBroken);
        }
    }

    /** In how many nights that were not outages an attempt of it failed. */
    private long failures(History main, String key) {
        return main.test(key).stream()
                .flatMap(test -> test.appearances().stream())
                .filter(one -> one.outcome().needsAttention() || one.recovered())
                .filter(one -> !outages.contains(night(one.run())))
                .count();
    }

    private void flaky(int night, History main) {
        for (TestHistory one : main.flaky(ALL))
            count("flaky: true", team.test(one.key()).wasFlaky(night));
        for (MadeUpTest test : team.tests()) {
            if (test.rate(night) == 0 || test.isBroken(night)) continue;
            long failed = failures(main, test.key());
            if (failed > FEW)
                count(
                        "flaky: found, that failed in " + (failed < WITHIN ? failed : WITHIN + " or more") + " nights",
                        main.flakiness(test.key()).isFlaky());
        }
    }

    private void slower(int night, History main) {
        for (TestHistory one : main.slower(ALL)) {
            boolean isSlower = growth(team.test(one.key()), night) > LEAST_GROWTH;
            count("slower: true", isSlower);
            if (!isSlower) wrong(night, "not slower", main, one.key(), main.durationStep(one.key()));
        }
        int since = night - WITHIN + 1;
        for (MadeUpTest test : team.tests()) {
            if (!test.becomesSlower(since) && !test.isGrowing()) continue;
            Collection<Duration> times = main.durations(test.key()).values();
            if (times.size() < KNOWN_AFTER || times.stream().allMatch(time -> time.toMillis() < LEAST_MILLIS)) continue;
            boolean isFound = main.durationStep(test.key())
                    .filter(step -> step.factor() > 1)
                    .isPresent();
            if (test.becomesSlower(since)) {
                double factor = test.factor(since) / test.factor(since - 1);
                String size = factor < 1.5 ? "1.3 to 1.5" : factor < 1.9 ? "1.5 to 1.9" : "1.9 to 2.8";
                count("slower by " + size + ": found within " + WITHIN + " nights", isFound);
            } else if (growth(test, night) > LEAST_SLOW_GROWTH)
                count("grown by little each night, by a seventh and more: found", isFound);
        }
    }

    /** By what it takes longer than in the first of the nights that count. */
    private static double growth(MadeUpTest test, int night) {
        return test.factor(night) / test.factor(Math.max(0, night - NIGHTS_THAT_COUNT));
    }
}
