package dev.verbale.rules;

import dev.verbale.history.RunSummary;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.results.DurationText;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.summary.Dateline;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.Today.Failures;
import dev.verbale.rules.Today.Flickered;
import dev.verbale.rules.Triage.Labelled;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * {@link Today} in words, in the order in which a reader wants it: what a terminal, a mail and a CI job's page say in their own forms.
 * Texts are as they were recorded: whoever shows them cuts and escapes them.
 *
 * @param sentence what the run came to
 * @param dateline which run it is
 * @param beside what it is compared with, and what came of that; one sentence each
 * @param gate whether the gate is open, then why it is closed, then what it passes over
 * @param parts what is new, flaky, known, fixed, slower, gone; those with nothing in them are not there
 * @since 0.2.0
 */
public record TodayParts(String sentence, String dateline, List<String> beside, List<String> gate, List<Part> parts) {

    private static final DateTimeFormatter MINUTE = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private static final Pattern LINE_OF_CODE = Pattern.compile("\\(([^():\\s]+:\\d+)\\)");
    private static final int MAX_RUNS = 5;
    private static final String FIXED = "Fixed";

    public TodayParts {
        beside = List.copyOf(beside);
        gate = List.copyOf(gate);
        parts = List.copyOf(parts);
    }

    /**
     * Something to know, with what is in it.
     *
     * @param standing of the failures in it; null where it has none
     * @param reasons failures by their reasons; of flaky tests too
     * @param lines what has no reason
     */
    public record Part(@Nullable Standing standing, String title, List<Reason> reasons, List<Line> lines) {
        public Part {
            reasons = List.copyOf(reasons);
            lines = List.copyOf(lines);
        }

        /** How many tests and classes. */
        public int count() {
            return lines.size()
                    + reasons.stream().mapToInt(reason -> reason.tests().size()).sum();
        }
    }

    /**
     * Tests with one reason.
     *
     * @param id of the reason; empty where nobody knows
     * @param about what the team says of it, and since when it is there; may be empty
     * @param code the line of the suite that the first of them failed in, such as {@code ShedPageTest.java:41}; empty for none
     * @param evidence the recorded line that explains it; null where the title says all
     * @param tests and classes, at least one
     * @param first the first of the tests; null where only classes broke
     */
    public record Reason(
            String id,
            String title,
            List<String> about,
            String code,
            @Nullable String evidence,
            List<Line> tests,
            @Nullable TestResult first) {
        public Reason {
            about = List.copyOf(about);
            tests = List.copyOf(tests);
        }
    }

    /**
     * A test, or a class.
     *
     * @param name with the names around it
     * @param more what is said of it; may be empty
     */
    public record Line(String name, String more) {}

    /**
     * @param day by which rules are over
     * @param zone of the times that are said
     */
    public static TodayParts of(Today today, LocalDate day, ZoneId zone) {
        Comparison comparison = today.comparison();
        List<Part> parts = new ArrayList<>();
        for (Standing standing : List.of(Standing.NEW, Standing.NEW_TOGETHER, Standing.NEW_OF_FLAKY))
            failures(today, standing, day, zone, parts);
        failures(today, Standing.UNCOMPARED, day, zone, parts);
        flaky(today.flaky(), parts);
        for (Standing standing : List.of(Standing.STILL, Standing.KNOWN)) failures(today, standing, day, zone, parts);
        if (comparison != null) {
            list(FIXED, comparison.fixed(), change -> line(change, ""), parts);
            list("Slower", comparison.slower(), change -> line(change, slower(change)), parts);
            list(
                    "Renamed",
                    comparison.renamed(),
                    change -> line(
                            change,
                            change.before() == null
                                    ? ""
                                    : "was " + change.before().name()),
                    parts);
            list(missing(comparison), comparison.vanished(), test -> new Line(test.name(), ""), parts);
        }
        return new TodayParts(
                Headline.of(today.run()), Dateline.of(today.run(), zone), beside(today, zone), gate(today), parts);
    }

    /** How many tests pass that failed before. */
    public int fixed() {
        return parts.stream()
                .filter(part -> part.standing() == null && part.title().equals(FIXED))
                .mapToInt(Part::count)
                .sum();
    }

    private static String missing(Comparison comparison) {
        if (!comparison.after().isComplete()) return "Not in this run, which is incomplete";
        return comparison.isOfAPart() ? "Not asked for" : "Vanished";
    }

    /**
     * The failures of a run by what the rules say of them: first those that no rule knows, then those whose rule is over.
     *
     * @param day by which rules are over
     * @param zone of the times that are said
     */
    public static List<Part> byLabel(Run run, Triage triage, Rules rules, LocalDate day, ZoneId zone) {
        Today today = Today.of(run, triage, rules, null, null);
        Map<String, List<Reason>> byLabel = new LinkedHashMap<>();
        for (Labelled one : triage.failures()) byLabel.put(label(one.rule(), one.isExpired()), new ArrayList<>());
        for (Failures one : today.failures()) {
            List<Reason> its = byLabel.get(label(one.rule(), one.isExpired()));
            if (its != null && !one.tests().isEmpty()) its.add(withComment(reason(today, one, day, zone), one.rule()));
        }
        List<Part> parts = new ArrayList<>();
        byLabel.forEach((label, reasons) -> parts.add(new Part(null, label, reasons, List.of())));
        return parts;
    }

    private static String label(Optional<TriageRule> rule, boolean isExpired) {
        String label = rule.map(TriageRule::label).orElse("No label");
        return isExpired ? label + ", known only until a day that is over" : label;
    }

    private static Reason withComment(Reason reason, Optional<TriageRule> rule) {
        List<String> about = new ArrayList<>(reason.about());
        rule.ifPresent(one -> {
            if (one.comment() != null) about.add(one.comment());
            if (one.link() != null) about.add(one.link());
        });
        return new Reason(
                reason.id(), reason.title(), about, reason.code(), reason.evidence(), reason.tests(), reason.first());
    }

    private static List<String> beside(Today today, ZoneId zone) {
        Comparison comparison = today.comparison();
        if (comparison == null) return List.of("No run is known to compare it with.");
        List<String> beside = new ArrayList<>();
        beside.add("Beside " + comparison.baseline().text() + ": " + comparison.sentence());
        if (!today.since().isEmpty()) beside.add("Runs since: " + runs(today.since(), zone));
        return beside;
    }

    private static String runs(List<RunSummary> runs, ZoneId zone) {
        List<RunSummary> last = runs.subList(Math.max(0, runs.size() - MAX_RUNS), runs.size());
        String listed = last.stream()
                .map(run -> MINUTE.format(run.started().atZone(zone)) + ", "
                        + (run.needingAttention() == 0 ? "all good" : run.needingAttention() + " failed"))
                .collect(Collectors.joining("; "));
        return (last.size() < runs.size() ? runs.size() - last.size() + " more; " : "") + listed;
    }

    private static List<String> gate(Today today) {
        List<String> gate = new ArrayList<>();
        gate.add(today.verdict().passes() ? "The gate is open." : "The gate is closed.");
        gate.addAll(today.verdict().reasons());
        gate.addAll(today.verdict().exceptions());
        return gate;
    }

    private static void failures(Today today, Standing standing, LocalDate day, ZoneId zone, List<Part> parts) {
        List<Reason> reasons = today.of(standing).stream()
                .map(one -> reason(today, one, day, zone))
                .toList();
        if (!reasons.isEmpty()) parts.add(new Part(standing, standing.text(), reasons, List.of()));
    }

    private static Reason reason(Today today, Failures one, LocalDate day, ZoneId zone) {
        List<String> about = new ArrayList<>();
        String whose = one.whose(day);
        if (!whose.isEmpty()) about.add(whose);
        if (one.failingSince() != null)
            about.add("fails since " + MINUTE.format(one.failingSince().atZone(zone)));
        List<Line> tests = new ArrayList<>();
        for (TestResult test : one.tests()) tests.add(new Line(name(test), before(today, one, test)));
        for (String broken : one.classes()) tests.add(new Line(broken, "itself"));
        return new Reason(
                one.reason(),
                one.title(),
                about,
                code(one.frame()),
                one.evidence(),
                tests,
                one.tests().isEmpty() ? null : one.tests().get(0));
    }

    private static String code(String frame) {
        Matcher line = LINE_OF_CODE.matcher(frame);
        return line.find() ? line.group(1) : "";
    }

    /** How a test stood before, where its standing does not say it. */
    private static String before(Today today, Failures one, TestResult test) {
        Comparison comparison = today.comparison();
        if (comparison == null) return "";
        Change still = of(comparison.stillFailing(), test);
        if (still != null) return still.hasOtherReason() ? "for another reason than before" : "";
        Change added = of(comparison.newFailures(), test);
        if (added == null) return "";
        if (one.standing() == Standing.NEW_OF_FLAKY) return added.flakiness().sentence() + " anyway";
        return added.before() == null ? "a new test" : "";
    }

    private static @Nullable Change of(List<Change> changes, TestResult test) {
        for (Change change : changes) if (change.after().key().equals(test.key())) return change;
        return null;
    }

    /** By why their attempts failed, those with most tests first. */
    private static void flaky(List<Flickered> all, List<Part> parts) {
        Map<String, List<Flickered>> byReason = new LinkedHashMap<>();
        for (Flickered one : all)
            byReason.computeIfAbsent(one.why() == null ? "" : one.why().id(), added -> new ArrayList<>())
                    .add(one);
        List<Reason> reasons = new ArrayList<>();
        byReason.values().stream()
                .sorted((one, other) -> Integer.compare(other.size(), one.size()))
                .forEach(group -> reasons.add(flaky(group)));
        if (!reasons.isEmpty()) parts.add(new Part(null, "Passed only on a later attempt", reasons, List.of()));
    }

    private static Reason flaky(List<Flickered> group) {
        Flickered first = group.get(0);
        var why = first.why();
        String difference = group.stream()
                .map(Flickered::difference)
                .filter(one -> !one.isEmpty())
                .findFirst()
                .orElse("");
        return new Reason(
                why == null ? "" : why.id(),
                why == null ? "Nothing was recorded of the attempt before" : why.title(),
                difference.isEmpty() ? List.of() : List.of("first different: " + difference),
                why == null ? "" : code(why.frame()),
                why == null ? null : why.evidence(),
                group.stream()
                        .map(one -> new Line(
                                name(one.test()),
                                one.flakiness().isFlaky() ? one.flakiness().sentence() : "which was steady so far"))
                        .toList(),
                first.test());
    }

    private static <T> void list(String title, List<T> all, Function<T, Line> line, List<Part> parts) {
        if (!all.isEmpty())
            parts.add(new Part(null, title, List.of(), all.stream().map(line).toList()));
    }

    private static Line line(Change change, String more) {
        return new Line(change.after().name(), more);
    }

    private static String slower(Change change) {
        String now = DurationText.of(Duration.ofMillis(change.after().millis()));
        return change.before() == null
                ? now
                : now + ", before "
                        + DurationText.of(Duration.ofMillis(change.before().millis()));
    }

    private static String name(TestResult test) {
        List<String> names = new ArrayList<>(test.path());
        names.add(test.name());
        return String.join(" › ", names);
    }
}
