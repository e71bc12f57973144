package dev.verbale.cli;

import dev.verbale.history.compare.Comparison;
import dev.verbale.results.TestResult;
import dev.verbale.rules.Standing;
import dev.verbale.rules.Today;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Line;
import dev.verbale.rules.TodayParts.Part;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Objects;

/** What {@link Today} says, for a terminal. */
final class TodayText {

    private final PrintWriter out;
    private final TerminalText text;
    private final int limit;

    TodayText(PrintWriter out, TerminalText text, int limit) {
        this.out = out;
        this.text = text;
        this.limit = limit;
    }

    void print(Today today) {
        TodayParts all = TodayParts.of(today, LocalDate.now(ZoneId.systemDefault()), ZoneId.systemDefault());
        head(today, all);
        var parts = new PartText(out, text, today.run(), limit);
        boolean hasCommits = false;
        for (Part part : all.parts()) {
            if (part.standing() != Standing.NEW && !hasCommits) {
                commits(today, parts);
                hasCommits = true;
            }
            parts.print(part);
        }
        if (!hasCommits) commits(today, parts);
    }

    private void head(Today today, TodayParts all) {
        lines("", text.wrapped(all.sentence(), text.width(), 4), true);
        lines("", text.wrapped(all.dateline(), text.width(), 2), false);
        for (String line : all.beside()) lines("", text.wrapped(line, text.width(), 3), false);
        out.println();
        String gate = all.gate().get(0);
        out.println(today.verdict().passes() ? text.good(gate) : text.bad(gate));
        for (String line : all.gate().subList(1, all.gate().size()))
            lines("  ", text.wrapped(line, text.width() - 2, 3), false);
    }

    private void lines(String indent, List<String> lines, boolean isStrong) {
        for (String line : lines) out.println(indent + (isStrong ? text.strong(line) : text.dim(line)));
    }

    private static void commits(Today today, PartText parts) {
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
        if (commits.all().isEmpty()) return;
        parts.print(new Part(
                null,
                commits.touching() == 0
                        ? "Commits between"
                        : "Commits between, those in the new failures' classes first",
                List.of(),
                commits.all().stream().map(commit -> new Line(commit, "")).toList()));
    }
}
