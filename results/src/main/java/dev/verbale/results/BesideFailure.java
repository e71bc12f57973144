package dev.verbale.results;

import dev.verbale.event.Failure;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a failure's own message does not say: where it began, what it suppressed, and what failed with it.
 *
 * @since 0.2.0
 */
public final class BesideFailure {

    private static final int MAX_LINES = 20_000;

    /** At the beginning of a line: the causes of what was suppressed are indented. */
    private static final Pattern CAUSE = Pattern.compile("Caused by: (.+)");

    private static final Pattern SUPPRESSED = Pattern.compile("\\tSuppressed: (.+)");

    private BesideFailure() {}

    /**
     * A line each, such as {@code caused by java.net.ConnectException: Connection refused}, {@code suppressed
     * java.lang.IllegalStateException: the shed is locked}, {@code and: the bed is dry}; what the message repeats is left out.
     *
     * @param limit how many of those that failed with it are named at the most; the last line tells how many more there are
     */
    public static List<String> lines(Failure failure, int limit) {
        String message = failure.message() == null ? "" : failure.message();
        String cause = "";
        Set<String> suppressed = new LinkedHashSet<>();
        for (String line : (Iterable<String>) failure.stack().lines().limit(MAX_LINES)::iterator) {
            Matcher caused = CAUSE.matcher(line);
            if (caused.matches()) cause = caused.group(1);
            Matcher beside = SUPPRESSED.matcher(line);
            if (beside.matches()) suppressed.add(beside.group(1));
        }
        List<String> lines = new ArrayList<>();
        if (!cause.isEmpty() && !repeats(message, words(cause))) lines.add("caused by " + cause);
        List<String> others = new ArrayList<>();
        for (String one : suppressed) if (!repeats(message, words(one))) others.add("suppressed " + one);
        for (Failure one : failure.gathered()) {
            String title = FailureTitle.of(one);
            if (!repeats(message, title)) others.add("and: " + title);
        }
        lines.addAll(others.subList(0, Math.min(limit, others.size())));
        if (others.size() > limit) lines.add("and " + (others.size() - limit) + " more failures");
        return lines;
    }

    private static boolean repeats(String message, String words) {
        return !words.isEmpty() && message.contains(words);
    }

    /** Of a throwable in a trace, without its type. */
    private static String words(String thrown) {
        return thrown.replaceFirst("^[\\w.$]+(?:: )?", "");
    }
}
