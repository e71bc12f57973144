package dev.verbale.results;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.results.Entry.CheckEntry;
import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.results.Entry.StepEntry;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * What was checked of each response in a test.
 *
 * <p>A check that names its exchange is about that one. Any other is about the exchange of the test that was over last, unless
 * a browser was asked to do something since: then it is about what that shows. The assertion that ended the test counts as
 * one of them, where no check has said it already: of the last response that has the value it found, and where none is known to
 * have it, said to come after the last exchange.
 *
 * @since 0.2.0
 */
public final class ExchangeChecks {

    private static final String AFTER = "afterwards: ";

    private final List<Moment> exchanges = new ArrayList<>();
    private final TreeSet<Instant> browserActs = new TreeSet<>();
    private final List<CheckEntry> checks = new ArrayList<>();
    private final Map<Integer, List<CheckEntry>> byExchange = new HashMap<>();
    private @Nullable StepEntry failedIn;
    private boolean failedInTearDown;

    private record Moment(Instant end, ExchangeMade made, boolean inTearDown) {
        int id() {
            return made.id();
        }
    }

    private ExchangeChecks() {}

    /** The checks of a test, by the id of the exchange; one without any is not in there. */
    public static Map<Integer, List<CheckEntry>> of(TestResult test) {
        var found = new ExchangeChecks();
        found.gather(test.entries(), false);
        if (found.exchanges.isEmpty()) return Map.of();
        found.exchanges.sort(Comparator.comparing(Moment::end));
        for (CheckEntry check : found.checks)
            found.add(check.exchange() != 0 ? check.exchange() : found.before(check.at(), true), check);
        found.testEnd(test);
        return found.byExchange;
    }

    private void gather(List<Entry> entries, boolean inTearDown) {
        for (Entry entry : entries) {
            if (entry instanceof ExchangeEntry exchange)
                exchanges.add(new Moment(exchange.at().plus(exchange.duration()), exchange.made(), inTearDown));
            else if (entry instanceof CheckEntry check) checks.add(check);
            else if (entry instanceof StepEntry step) {
                if (step.kind().equals(StepKind.BROWSER)) browserActs.add(step.at());
                boolean tearsDown = inTearDown || step.kind().equals(StepKind.TEAR_DOWN);
                if (step.failure() != null) {
                    failedIn = step;
                    failedInTearDown = tearsDown;
                }
                gather(step.entries(), tearsDown);
            } else gather(Entry.inside(entry), inTearDown);
        }
    }

    private void testEnd(TestResult test) {
        Failure failure = test.failure();
        if (failure == null
                || !test.outcome().equals(Outcome.FAILED)
                || !failure.gathered().isEmpty()) return;
        if (checks.stream().anyMatch(check -> same(check.failure(), failure))) return;
        StepEntry step = failedIn != null && same(failedIn.failure(), failure) ? failedIn : null;
        if (step != null && failedInTearDown) return;
        Instant at =
                step == null ? test.started().plus(test.duration()) : step.at().plus(step.duration());
        int last = before(at, false);
        int compared = withValue(ComparedValue.of(failure), at);
        String title = FailureTitle.of(failure);
        add(
                compared == 0 ? last : compared,
                new CheckEntry(at, compared == 0 ? AFTER + title : title, Outcome.FAILED, failure, 0));
    }

    /** The last exchange before {@code moment} whose response has this value; 0 where none is known to. */
    private int withValue(@Nullable ComparedValue compared, Instant moment) {
        if (compared == null) return 0;
        for (int at = after(moment) - 1; at >= 0; at--) {
            Moment one = exchanges.get(at);
            if (!one.inTearDown() && compared.isIn(one.made())) return one.id();
        }
        return 0;
    }

    private static boolean same(@Nullable Failure one, Failure other) {
        return one != null && one.type().equals(other.type()) && Objects.equals(one.message(), other.message());
    }

    /** The exchange that was over last at {@code moment}; 0 where there is none, or a browser acted since. */
    private int before(Instant moment, boolean alsoInTearDown) {
        int at = after(moment) - 1;
        while (at >= 0 && !alsoInTearDown && exchanges.get(at).inTearDown()) at--;
        if (at < 0) return 0;
        Moment last = exchanges.get(at);
        Instant act = browserActs.higher(last.end());
        return act == null || act.isAfter(moment) ? last.id() : 0;
    }

    /** How many were over by then: a test may have ten thousand, and as many checks. */
    private int after(Instant moment) {
        int from = 0;
        int to = exchanges.size();
        while (from < to) {
            int middle = (from + to) >>> 1;
            if (exchanges.get(middle).end().isAfter(moment)) to = middle;
            else from = middle + 1;
        }
        return from;
    }

    private void add(int exchange, CheckEntry check) {
        if (exchange != 0)
            byExchange.computeIfAbsent(exchange, id -> new ArrayList<>()).add(check);
    }
}
