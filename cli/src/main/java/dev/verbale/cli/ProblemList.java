package dev.verbale.cli;

import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import java.util.List;

/** What was wrong with a run's own files, for the standard error. */
final class ProblemList {

    private static final int MAX = 10;
    private static final int LONGEST = 500;

    private ProblemList() {}

    static String of(Run run) {
        List<Problem> problems = run.problems();
        var text = new StringBuilder(problems.size() == 1 ? "1 problem" : problems.size() + " problems")
                .append(" in recording or reading this run")
                .append(run.incomplete().isNothing() ? "; everything else is there:" : ":");
        problems.stream()
                .limit(MAX)
                .forEach(problem -> text.append("\n  ").append(Texts.cut(problem.sentence(), LONGEST)));
        if (problems.size() > MAX)
            text.append("\n  and ").append(problems.size() - MAX).append(" more");
        return text.toString();
    }
}
