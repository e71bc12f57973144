package dev.orto.nights;

import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.RunReader;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Makes up forty nights before a run of the demo, each marked as made up: tests that flicker, swaps of the rota that broke nine nights
 * ago, a total of the harvest that was wrong for a week and was mended, a compost that became slow, and so did opening a page, a
 * branch. The same run has the same
 * nights.
 */
public final class MadeUpNights {

    private static final int NIGHTS = 40;
    private static final int SWAP_BROKE = 9;
    private static final int COMPOST_SLOW = 8;
    private static final int PAGE_SLOW = 8;
    private static final int TOTAL_WRONG_FROM = 30;
    private static final int TOTAL_WRONG_TO = 23;
    private static final int BRANCH_EVERY = 6;
    /** What a test takes is seldom below: the demo's own tests are quick, and times of nothing tell nothing. */
    private static final int LEAST_MILLIS = 40;

    private final RunDigest today;
    private final Random random;

    private MadeUpNights(RunDigest today) {
        this.today = today;
        this.random = new Random(today.tests().size());
    }

    /** {@code RUN HISTORY}: the folder of the run, and that of the history. */
    public static void main(String[] arguments) throws IOException {
        if (arguments.length != 2) {
            System.err.println("Name the folder of a run, and the folder of a history.");
            System.exit(2);
        }
        RunDigest today = RunDigest.of(RunReader.read(Path.of(arguments[0])));
        var folder = new HistoryFolder(Path.of(arguments[1]));
        for (RunDigest night : before(today)) folder.add(night);
        folder.add(today);
        System.out.println("History: " + folder.path() + " (" + NIGHTS + " made-up nights and this run)");
    }

    /** The nights before {@code today}, the oldest first. */
    public static List<RunDigest> before(RunDigest today) {
        var nights = new MadeUpNights(today);
        List<RunDigest> all = new ArrayList<>();
        for (int ago = NIGHTS; ago >= 1; ago--) all.add(nights.night(ago));
        return all;
    }

    private RunDigest night(int ago) {
        Instant started = today.started()
                .truncatedTo(ChronoUnit.DAYS)
                .minus(ago, ChronoUnit.DAYS)
                .plus(Duration.ofMinutes(22 * 60 + 15));
        boolean onBranch = ago % BRANCH_EVERY == 0;
        Map<String, ReasonDigest> reasons = new LinkedHashMap<>();
        List<TestDigest> tests = new ArrayList<>();
        long millis = 0;
        for (TestDigest test : today.tests()) {
            TestDigest then = test(test, ago, onBranch);
            tests.add(then);
            millis += then.millis();
            for (ReasonDigest reason : today.reasons())
                if (reason.id().equals(then.reason())) reasons.put(reason.id(), reason);
        }
        String name = started.toString().substring(0, 10) + "_221500_" + String.format("%04x", random.nextInt(0x10000));
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put(RunDigest.MADE_UP, "yes");
        facts.put("branch", onBranch ? "rota-redesign" : today.branch().isEmpty() ? "main" : today.branch());
        facts.put("commit", String.format("%016x%016x%08x", random.nextLong(), random.nextLong(), random.nextInt()));
        return new RunDigest(
                name, started, Duration.ofMillis(millis), facts, true, true, tests, List.copyOf(reasons.values()));
    }

    private TestDigest test(TestDigest today, int ago, boolean onBranch) {
        Outcome skipped = today.outcome().equals(Outcome.SKIPPED) ? Outcome.SKIPPED : Outcome.PASSED;
        double usual = Math.max(LEAST_MILLIS, today.millis()) * Math.exp(random.nextGaussian() * 0.1);
        boolean wasQuicker = today.key().contains("Compost") && ago > COMPOST_SLOW;
        int millis = (int) (wasQuicker ? usual / 1.8 : usual);
        double draw = random.nextDouble();
        boolean broke = fails(today, ago, onBranch);
        boolean flickers = today.recovered() && draw < 0.15;
        boolean failsOnce = today.key().contains("weather") && draw > 0.95;
        boolean failed = broke || failsOnce;
        return new TestDigest(
                today.key(),
                today.name(),
                failed ? Outcome.FAILED : skipped,
                millis,
                failed || flickers ? 2 : 1,
                !failed && flickers,
                broke ? today.reason() : null,
                steps(today, failed ? 0.5 : 1.0, ago),
                today.origin());
    }

    /** What was broken then is broken for the reason that it has today. */
    private static boolean fails(TestDigest today, int ago, boolean onBranch) {
        if (today.reason() == null) return false;
        String key = today.key().toLowerCase(java.util.Locale.ROOT);
        if (key.contains("swap")) return ago <= SWAP_BROKE || (onBranch && ago <= SWAP_BROKE + BRANCH_EVERY);
        return key.contains("total") && ago <= TOTAL_WRONG_FROM && ago >= TOTAL_WRONG_TO;
    }

    private List<StepTime> steps(TestDigest today, double part, int ago) {
        List<StepTime> steps = new ArrayList<>();
        for (StepTime step :
                today.steps().subList(0, (int) Math.round(today.steps().size() * part))) {
            boolean wasQuicker = ago > PAGE_SLOW && step.name().equals("open the page");
            double usual = Math.min(3_000, step.millis()) / (wasQuicker ? 1.6 : 1);
            steps.add(new StepTime(step.name(), (int) (usual * Math.exp(random.nextGaussian() * 0.1))));
        }
        return steps;
    }
}
