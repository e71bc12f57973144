package dev.verbale.results;

import java.util.List;

/** What is wrong with one journal. */
final class JournalProblems {

    /** Of one journal: a broken one may have one in each of a million lines. */
    private static final int MAX_SHOWN = 500;

    private final String file;
    private final List<Problem> problems;
    private int count;

    /** @param problems those of the run, to which these are added */
    JournalProblems(String file, List<Problem> problems) {
        this.file = file;
        this.problems = problems;
    }

    /** @param line counted from 1, or 0 where it is about the whole file */
    void add(int line, String what) {
        if (++count <= MAX_SHOWN) problems.add(new Problem(file, line, what));
    }

    /** All were added. */
    void end() {
        if (count > MAX_SHOWN)
            problems.add(
                    new Problem(file, 0, (count - MAX_SHOWN) + " more problems like the last ones are not listed"));
    }
}
