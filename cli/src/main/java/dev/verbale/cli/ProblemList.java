package dev.verbale.cli;

import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import java.util.List;

/** What was wrong with a run's own files, for the standard error. */
final class ProblemList {

    private static final int MOST = 10;
    private static final int LONGEST = 500;

    private ProblemList() {}

    static String of(Run run) {
        List<Problem> problems = run.problems();
        var text = new StringBuilder(problems.size() == 1 ? "1 problem" : problems.size() + " problems")
                .append(" in recording or reading this run; everything else is there:");
        problems.stream().limit(MOST).forEach(problem -> text.append("\n  ")
                .append(Texts.cut(problem.sentence(), LONGEST)));
        if (problems.size() > MOST)
            text.append("\n  and ").append(problems.size() - MOST).append(" more");
        return text.toString();
    }
}
