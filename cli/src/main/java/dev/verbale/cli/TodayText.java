package dev.verbale.cli;

import dev.verbale.history.RunSummary;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.results.DurationText;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.Standing;
import dev.verbale.rules.Today;
import dev.verbale.rules.Today.Failures;
import dev.verbale.rules.Today.Flickered;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;

/** What {@link Today} says, for a terminal. */
final class TodayText {

    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ROOT).withZone(ZoneId.systemDefault());
    private static final int LONGEST = 100;
    private static final int MAX_TESTS = 2;

    private final PrintWriter out;
    private final TerminalText text;
    private final int limit;

    TodayText(PrintWriter out, TerminalText text, int limit) {
        this.out = out;
        this.text = text;
        this.limit = limit;
    }

    void print(Today today) {
        head(today);
        failures(today, Standing.NEW, "New", text::bad);
        commits(today);
        failures(today, Standing.NEW_TOGETHER, "New, and many at once: the run was not itself", text::bad);
        failures(today, Standing.NEW_OF_FLAKY, "New, of tests that are flaky anyway", text::strong);
        flickered(today.flaky());
        failures(today, Standing.STILL, "Still failing", text::strong);
        failures(today, Standing.KNOWN, "Known", text::strong);
        Comparison comparison = today.comparison();
        if (comparison == null) return;
        section("Fixed", comparison.fixed(), change -> name(change.after().name()));
        section("Slower", comparison.slower(), TodayText::slower);
        section(
                "Renamed",
                comparison.renamed(),
                change -> name(change.after().name())
                        + (change.before() == null
                                ? ""
                                : text.dim(", was " + name(change.before().name()))));
        section(
                comparison.isOfAPart() || !comparison.after().isComplete() ? "Not run" : "Vanished",
                comparison.vanished(),
                test -> name(test.name()));
    }

    private void head(Today today) {
        out.println(text.strong(Headline.of(today.run())));
        Comparison comparison = today.comparison();
        String branch = today.run().facts().getOrDefault("branch", "");
        out.println(text.dim(TerminalText.printable(today.run().name()
                + (branch.isEmpty() ? "" : " of " + branch)
                + (comparison == null
                        ? ", and no run is known to compare it with: each failure counts as new"
                        : " beside " + comparison.baseline().text()))));
        if (!today.since().isEmpty()) out.println(text.dim("Runs since: " + runs(today.since())));
        if (comparison != null && !comparison.speedSentence().isEmpty()) out.println(comparison.speedSentence());
        out.println();
        out.println(today.verdict().passes() ? text.good("The gate is open.") : text.bad("The gate is closed."));
        today.verdict().reasons().forEach(reason -> out.println("  " + TerminalText.printable(reason)));
        today.verdict()
                .exceptions()
                .forEach(exception -> out.println("  " + text.dim(TerminalText.printable(exception))));
    }

    private String runs(List<RunSummary> runs) {
        List<RunSummary> last = runs.subList(Math.max(0, runs.size() - limit), runs.size());
        String listed = last.stream()
                .map(run -> DAY.format(run.started()) + ", "
                        + (run.needingAttention() == 0 ? "all good" : run.needingAttention() + " failed"))
                .collect(Collectors.joining("; "));
        return (last.size() < runs.size() ? runs.size() - last.size() + " more; " : "") + listed;
    }

    private void failures(Today today, Standing standing, String title, Function<String, String> style) {
        List<Failures> all = today.of(standing);
        if (all.isEmpty()) return;
        out.println();
        int count = today.count(standing);
        out.println(style.apply(title)
                + text.dim("  " + count + (count == 1 ? " failure, " : " failures, ")
                        + (all.size() == 1 ? "1 reason" : all.size() + " reasons")));
        for (Failures one : all.subList(0, Math.min(limit, all.size()))) failures(today, one);
        if (all.size() > limit) out.println(text.dim("  and " + (all.size() - limit) + " more reasons"));
    }

    private void failures(Today today, Failures one) {
        out.println("  " + text.strong(name(one.title())));
        String whose = one.whose(LocalDate.now(ZoneId.systemDefault()));
        if (!whose.isEmpty())
            out.println("    "
                    + (one.isExpired() ? text.bad(TerminalText.printable(whose)) : TerminalText.printable(whose)));
        Instant since = one.failingSince();
        if (since != null) out.println(text.dim("    fails since " + DAY.format(since)));
        if (one.evidence() != null) out.println(text.dim("    " + name(one.evidence())));
        List<String> names = new ArrayList<>();
        for (TestResult test : one.tests()) names.add(fullName(test) + anyway(today, one, test));
        names.addAll(one.classes());
        for (String name : names.subList(0, Math.min(MAX_TESTS, names.size())))
            out.println("    " + TerminalText.printable(name));
        if (names.size() > MAX_TESTS) out.println(text.dim("    and " + (names.size() - MAX_TESTS) + " more"));
    }

    private static String anyway(Today today, Failures one, TestResult test) {
        Comparison comparison = today.comparison();
        if (one.standing() != Standing.NEW_OF_FLAKY || comparison == null) return "";
        return comparison.newFailures().stream()
                .filter(change -> change.after().key().equals(test.key()))
                .findFirst()
                .map(change -> ": " + change.flakiness().sentence() + " anyway")
                .orElse("");
    }

    private void flickered(List<Flickered> all) {
        section(
                "Passed only on a later attempt",
                all,
                one -> name(fullName(one.test()))
                        + (one.flakiness().isFlaky()
                                ? ": " + one.flakiness().sentence()
                                : text.dim(", which was steady so far")));
    }

    private void commits(Today today) {
        Comparison comparison = today.comparison();
        if (comparison == null || today.of(Standing.NEW).isEmpty()) return;
        List<String> classes = today.of(Standing.NEW).stream()
                .flatMap(one -> one.tests().stream())
                .map(TestResult::className)
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        Commits commits = Commits.between(
                Path.of("").toAbsolutePath(),
                comparison.before().commit(),
                comparison.after().commit(),
                classes);
        section(
                commits.touching() == 0
                        ? "Commits between"
                        : "Commits between, those in the new failures' classes first",
                commits.all(),
                TerminalText::printable);
    }

    private <T> void section(String title, List<T> all, Function<T, String> line) {
        if (all.isEmpty()) return;
        out.println();
        out.println(text.strong(title) + text.dim("  " + all.size()));
        for (T one : all.subList(0, Math.min(limit, all.size()))) out.println("  " + line.apply(one));
        if (all.size() > limit) out.println(text.dim("  and " + (all.size() - limit) + " more"));
    }

    private static String slower(Change change) {
        return name(change.after().name()) + ": "
                + DurationText.of(Duration.ofMillis(change.after().millis()))
                + (change.before() == null
                        ? ""
                        : ", before "
                                + DurationText.of(
                                        Duration.ofMillis(change.before().millis())));
    }

    private static String fullName(TestResult test) {
        List<String> names = new ArrayList<>(test.path());
        names.add(test.name());
        return Texts.cut(String.join(" › ", names), LONGEST);
    }

    private static String name(String name) {
        return TerminalText.printable(Texts.cut(name, LONGEST));
    }
}
