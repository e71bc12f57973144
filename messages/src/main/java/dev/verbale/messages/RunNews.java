package dev.verbale.messages;

import dev.verbale.results.Run;
import dev.verbale.results.Texts;
import dev.verbale.rules.Standing;
import dev.verbale.rules.TodayParts;
import dev.verbale.rules.TodayParts.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What there is to say of a run.
 *
 * @param page where its page is to be looked at; null where it is nowhere
 * @since 0.2.0
 */
public record RunNews(Run run, TodayParts today, @Nullable String page) {

    private static final Set<Standing> NEW =
            Set.of(Standing.NEW, Standing.NEW_TOGETHER, Standing.NEW_OF_FLAKY, Standing.UNCOMPARED);
    private static final int LONGEST_BRANCH = 60;

    /** When a message is wanted. */
    public enum When {
        /** Where something failed that did not before, or nobody knows it: nothing to compare with, no test, a run that is incomplete. */
        NEW_FAILURES,
        /** Where something passes that failed before. */
        FIXED,
        ALWAYS
    }

    /** How many failures are new, or may be. */
    public int newFailures() {
        return today.parts().stream()
                .filter(part -> part.standing() != null && NEW.contains(part.standing()))
                .mapToInt(Part::count)
                .sum();
    }

    /** How many tests pass that failed before. */
    public int fixed() {
        return today.fixed();
    }

    /** Whether it is asked for. */
    public boolean isWanted(Set<When> when) {
        boolean isUnknown = run.tests().isEmpty() || !run.incomplete().isNothing();
        return when.contains(When.ALWAYS)
                || when.contains(When.NEW_FAILURES) && (newFailures() > 0 || isUnknown)
                || when.contains(When.FIXED) && fixed() > 0;
    }

    /** Everything in one line, such as {@code main: 3 new failures, 2 fixed. 17 of 83 tests did not pass}. */
    public String line() {
        List<String> parts = new ArrayList<>();
        int news = newFailures();
        if (news > 0) parts.add(news + (news == 1 ? " new failure" : " new failures"));
        if (fixed() > 0) parts.add(fixed() + " fixed");
        if (!run.incomplete().isNothing()) parts.add("incomplete");
        String branch = branch();
        return (branch.isEmpty() ? "" : branch + ": ")
                + (parts.isEmpty() ? "" : String.join(", ", parts) + ". ")
                + plain(today.sentence().replaceFirst("[:.].*", ""));
    }

    String branch() {
        return Texts.cut(plain(run.facts().getOrDefault("branch", "")), LONGEST_BRANCH);
    }

    /** In one line, and without what moves a cursor. */
    static String plain(String text) {
        return text.strip().replaceAll("\\s+", " ").replaceAll("[\\p{Cntrl}]", "");
    }
}
