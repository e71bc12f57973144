package dev.verbale.history.compare;

import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Where a test first went otherwise than in an earlier run, or in another attempt. Steps, exchanges and checks are compared in their order,
 * those inside a step before what follows it; times and log lines are not, for they always differ. A value of a response, or of the test's
 * data, that is another one comes first where the failure tells of it, and else where nothing else differs; what is made anew for each run,
 * such as an id or a moment, is no difference.
 *
 * @param path the steps around it, the outermost first
 * @param before what happened there then, such as {@code POST /api/swaps: 201}; null where nothing more did
 * @param after what happened there now; null where nothing more did
 * @param linesBefore the last log lines until then, at most {@value #MAX_LINES}
 * @param linesAfter the same of now
 * @since 0.2.0
 */
public record FirstDifference(
        List<String> path,
        @Nullable String before,
        @Nullable String after,
        List<String> linesBefore,
        List<String> linesAfter) {

    static final int MAX_LINES = 3;

    private static final Pattern MADE_UP = Pattern.compile("(\\bhttps?://)[^/\\s\"'<>?#]+"
            + "|\\b\\p{XDigit}{8}(?:-\\p{XDigit}{4}){3}-\\p{XDigit}{12}\\b"
            + "|\\b(?=\\p{XDigit}*\\d)\\p{XDigit}{16,}\\b");

    public FirstDifference {
        path = List.copyOf(path);
        linesBefore = List.copyOf(linesBefore);
        linesAfter = List.copyOf(linesAfter);
    }

    /** Empty where both went alike. */
    public static Optional<FirstDifference> of(TestResult before, TestResult after) {
        var walk = new Walk(new WordsOfFailure(before, after));
        Optional<FirstDifference> otherCourse = walk.walk(before.entries(), after.entries(), List.of());
        FirstDifference value = walk.namedValue == null ? walk.failingValue : walk.namedValue;
        if (value != null) return Optional.of(value);
        return otherCourse.isPresent() ? otherCourse : Optional.ofNullable(walk.otherValue);
    }

    /** What went otherwise in an attempt than in one of the same run that passed, in a sentence; empty where nothing did. */
    public static Optional<String> ofAttempts(TestResult failed, TestResult passed) {
        return of(passed, failed)
                .map(first -> first.sentenceBeside(passed.attempt().number()));
    }

    /** What is compared. */
    private record Moment(
            String what, String result, @Nullable String value, List<Entry> inside) {

        static @Nullable Moment of(Entry entry) {
            if (entry instanceof Entry.StepEntry step)
                return new Moment(step.name(), step.outcome().text(), null, step.entries());
            if (entry instanceof Entry.ExchangeEntry exchange) return of(exchange.made());
            if (entry instanceof Entry.CheckEntry check)
                return new Moment("check " + check.name(), check.outcome().text(), null, List.of());
            if (entry instanceof Entry.DataEntry data)
                return new Moment("data " + data.name(), "", data.value(), List.of());
            return null;
        }

        private static Moment of(ExchangeMade made) {
            String status = made.response() == null ? "no response" : String.valueOf(made.status());
            return new Moment(request(made), status, TestComparison.body(made), List.of());
        }

        /** The values that are not the same, by their paths in a JSON document; of another text itself. */
        List<JsonDifference> values(Moment other) {
            if (value == null || value.equals(other.value)) return List.of();
            return JsonDifference.of(value, other.value)
                    .filter(values -> !values.isEmpty() && !values.get(0).path().equals("$"))
                    .orElseGet(() ->
                            what.startsWith("data ") ? List.of(new JsonDifference("", value, other.value)) : List.of());
        }

        String text() {
            return what + ": " + result;
        }
    }

    /** Without what a run makes up: where a server of its own listened, and ids. */
    private static String steady(String name) {
        return MADE_UP.matcher(name).replaceAll("$1…");
    }

    /** Such as {@code GET /api/plots}: ports and hosts differ from run to run, and queries hold what was made up for one. */
    static String request(ExchangeMade made) {
        String url = made.request().url();
        try {
            String path = new URI(url).getRawPath();
            url = path == null || path.isEmpty() ? "/" : path;
        } catch (URISyntaxException odd) {
            // as it is, then
        }
        return made.request().method() + " " + url;
    }

    private static final class Walk {
        private final WordsOfFailure failed;
        private final List<String> linesBefore = new ArrayList<>();
        private final List<String> linesAfter = new ArrayList<>();
        private @Nullable FirstDifference namedValue;
        private @Nullable FirstDifference failingValue;
        private @Nullable FirstDifference otherValue;

        private Walk(WordsOfFailure failed) {
            this.failed = failed;
        }

        private Optional<FirstDifference> walk(List<Entry> before, List<Entry> after, List<String> path) {
            var then = new Cursor(before, linesBefore);
            var now = new Cursor(after, linesAfter);
            while (true) {
                Moment one = then.next();
                Moment other = now.next();
                if (one == null && other == null) return Optional.empty();
                if (one == null || other == null || !steady(one.what()).equals(steady(other.what())))
                    return found(path, one, other);
                values(path, one, other);
                List<String> inner = new ArrayList<>(path);
                inner.add(one.what());
                Optional<FirstDifference> inside = walk(one.inside(), other.inside(), inner);
                if (inside.isPresent()) return inside;
                if (!one.result().equals(other.result())) return found(path, one, other);
            }
        }

        /** The first that the failure tells of, by value and name or by value; and the first of all. */
        private void values(List<String> path, Moment one, Moment other) {
            for (JsonDifference value : one.values(other)) {
                if (namedValue != null) return;
                if (MadeUpValue.is(value)) continue;
                boolean isOfFailure = failed.has(value.before()) || failed.has(value.after());
                boolean isNamed = isOfFailure && failed.has(nameOf(value.path()));
                if (!isNamed && (isOfFailure ? failingValue : otherValue) != null) continue;
                String what = one.what() + (value.path().isEmpty() ? "" : ": " + value.path());
                FirstDifference found = new FirstDifference(
                        path,
                        value.before() == null ? null : what + ": " + value.before(),
                        value.after() == null ? null : what + ": " + value.after(),
                        last(linesBefore),
                        last(linesAfter));
                if (isNamed) namedValue = found;
                if (isOfFailure && failingValue == null) failingValue = found;
                if (otherValue == null) otherValue = found;
            }
        }

        private static String nameOf(String path) {
            return path.replaceAll(".*\\.|\\[.*", "");
        }

        private Optional<FirstDifference> found(List<String> path, @Nullable Moment one, @Nullable Moment other) {
            return Optional.of(new FirstDifference(
                    path,
                    one == null ? null : one.text(),
                    other == null ? null : other.text(),
                    last(linesBefore),
                    last(linesAfter)));
        }

        private static List<String> last(List<String> lines) {
            return lines.subList(Math.max(0, lines.size() - MAX_LINES), lines.size());
        }
    }

    /** Goes from moment to moment, and keeps the lines between them. */
    private static final class Cursor {
        private final List<Entry> entries;
        private final List<String> lines;
        private int at;

        private Cursor(List<Entry> entries, List<String> lines) {
            this.entries = entries;
            this.lines = lines;
        }

        private @Nullable Moment next() {
            while (at < entries.size()) {
                Entry entry = entries.get(at++);
                if (entry instanceof Entry.LogEntry log)
                    lines.add(log.text().lines().findFirst().orElse(""));
                Moment moment = Moment.of(entry);
                if (moment != null) return moment;
            }
            return null;
        }
    }

    /** Whether the earlier run did more: what this one never came to. */
    public boolean stoppedShort() {
        return after == null;
    }

    /** Such as {@code Swap two days › POST /api/swaps: 201, now 503}. */
    public String sentence() {
        String around = path.isEmpty() ? "" : String.join(" › ", path) + " › ";
        if (before == null) return around + after + ", which did not happen before";
        if (after == null) return around + before + ", which did not happen now";
        return around + before + ", now " + (sameBeginning() ? after.substring(after.lastIndexOf(": ") + 2) : after);
    }

    /**
     * The same of two attempts of one run: {@code before} is the one that passed.
     *
     * @param attempt its number
     */
    String sentenceBeside(int attempt) {
        String around = path.isEmpty() ? "" : String.join(" › ", path) + " › ";
        String other = "in attempt " + attempt;
        if (before == null) return around + after + ", which did not happen " + other;
        if (after == null) return around + before + " " + other + ", which did not happen here";
        return around + after + ", " + other + " "
                + (sameBeginning() ? before.substring(before.lastIndexOf(": ") + 2) : before);
    }

    private boolean sameBeginning() {
        return before != null
                && after != null
                && before.contains(": ")
                && after.startsWith(before.substring(0, before.lastIndexOf(": ") + 2));
    }
}
