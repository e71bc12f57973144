package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Problem;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.hipparchus.stat.descriptive.rank.Median;
import org.jspecify.annotations.Nullable;

/**
 * A step that takes longer than it did, in whichever tests it occurs. What counts of a run is the median of all its occurrences in tests
 * that passed at once.
 *
 * @param name the step's
 * @param tests how many tests have it in the newest run
 * @param step by how much
 * @since 0.2.0
 */
public record SlowerStep(String name, int tests, DurationStep step) {

    /** What one run says of its steps. */
    private record Times(RunSummary run, Map<String, Time> steps) {}

    private record Time(Duration median, int tests) {}

    /**
     * The steps that became slower in the runs of {@code history}, the ones that lost most time over all their tests first. Reads the digests of
     * the newest {@value DurationStep#MAX_RUNS} with their steps, which {@link HistoryFolder#read} leaves out.
     *
     * @param folder that {@code history} was read from
     * @param limit how many at the most
     * @param problems hears of each file, or line, that cannot be read
     */
    public static List<SlowerStep> in(HistoryFolder folder, History history, int limit, Consumer<Problem> problems) {
        List<RunSummary> last = history.runs()
                .subList(
                        Math.max(0, history.runs().size() - DurationStep.MAX_RUNS),
                        history.runs().size());
        List<List<Problem>> met = new ArrayList<>();
        last.forEach(run -> met.add(new ArrayList<>()));
        List<Times> runs = IntStream.range(0, last.size())
                .parallel()
                .mapToObj(i -> folder.digest(last.get(i).name(), last.get(i).started(), met.get(i)::add))
                .flatMap(Optional::stream)
                .map(SlowerStep::times)
                .toList();
        met.forEach(list -> list.forEach(problems));
        if (runs.isEmpty()) return List.of();
        Map<String, Time> newest = runs.get(runs.size() - 1).steps();
        List<String> names = newest.keySet().stream().sorted().toList();
        List<@Nullable DurationStep> steps = DurationStep.of(
                runs.stream().map(Times::run).toList(),
                names.stream().map(name -> durations(runs, name)).toList());
        List<SlowerStep> slower = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            DurationStep step = steps.get(i);
            if (step != null && step.factor() > 1)
                slower.add(new SlowerStep(
                        names.get(i),
                        Objects.requireNonNull(newest.get(names.get(i))).tests(),
                        step));
        }
        slower.sort(Comparator.comparingDouble((SlowerStep one) -> -one.lost()).thenComparing(SlowerStep::name));
        return slower.subList(0, Math.min(limit, slower.size()));
    }

    private static Durations durations(List<Times> runs, String name) {
        int[] in = IntStream.range(0, runs.size())
                .filter(run -> runs.get(run).steps().containsKey(name))
                .toArray();
        int[] nobody = new int[in.length];
        Arrays.fill(nobody, -1);
        return new Durations(
                in,
                nobody,
                Arrays.stream(in)
                        .mapToDouble(run -> Math.log((double) Math.max(
                                1,
                                Objects.requireNonNull(runs.get(run).steps().get(name))
                                        .median()
                                        .toMillis())))
                        .toArray());
    }

    private double lost() {
        return (double) tests * (step.after().toMillis() - step.before().toMillis());
    }

    private static Times times(RunDigest digest) {
        Map<String, List<Integer>> all = new HashMap<>();
        Map<String, Integer> tests = new HashMap<>();
        for (TestDigest test : digest.tests()) {
            if (!test.outcome().equals(Outcome.PASSED) || test.recovered()) continue;
            for (StepTime step : test.steps())
                all.computeIfAbsent(step.name(), name -> new ArrayList<>()).add(step.millis());
            test.steps().stream().map(StepTime::name).distinct().forEach(name -> tests.merge(name, 1, Integer::sum));
        }
        Map<String, Time> times = new HashMap<>();
        all.forEach((name, millis) -> {
            double median = new Median()
                    .evaluate(millis.stream().mapToDouble(Integer::doubleValue).toArray());
            times.put(name, new Time(Duration.ofMillis(Math.round(median)), tests.getOrDefault(name, 0)));
        });
        return new Times(RunSummary.of(digest), times);
    }
}
