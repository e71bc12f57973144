package dev.verbale.results;

import dev.verbale.event.Failure;
import java.util.List;
import java.util.regex.Pattern;

/**
 * The line of a failure that says most.
 *
 * @since 0.2.0
 */
public final class FailureTitle {

    /** In characters: a title stands in lists. */
    private static final int LONGEST = 500;
    /** What an assertion says in several lines is read in one as long as it is about as long as one. */
    private static final int LONGEST_JOINED = 160;

    private static final Pattern BEGINNING = Pattern.compile("Expecting\\b.*|[Ee]xpected\\b.*|\\[[^\\]]*\\]");

    private static final Pattern COMPARED = Pattern.compile("(?:Expected|Actual): .*");

    private FailureTitle() {}

    /**
     * Of a failure of many the title of the first, and how many others there are. Of one the first line of the message that says something: some libraries begin theirs with an empty one, or with how many they
     * are about to tell, or say in four lines what they expected and what came.
     */
    public static String of(Failure failure) {
        List<String> parts = FailureParts.of(failure).stream()
                .map(FailureTitle::of)
                .distinct()
                .toList();
        if (parts.isEmpty()) return ofMessage(failure);
        int more = parts.size() - 1;
        return parts.get(0) + (more == 0 ? "" : more == 1 ? " (and another)" : " (and " + more + " others)");
    }

    private static String ofMessage(Failure failure) {
        String message = failure.message();
        if (message == null || message.isBlank()) return failure.type();
        List<String> lines = message.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .limit(8)
                .toList();
        while (lines.size() > 1 && FailureParts.isHeader(lines.get(0))) lines = lines.subList(1, lines.size());
        String first = lines.get(0);
        boolean goesOn = lines.size() > 1 && COMPARED.matcher(lines.get(1)).matches();
        if (!goesOn && !BEGINNING.matcher(first).matches()) return Texts.cut(first, LONGEST);
        var joined = new StringBuilder(Texts.cut(first, LONGEST));
        for (String next : lines.subList(1, lines.size())) {
            if (joined.length() + next.length() >= LONGEST_JOINED) break;
            joined.append(' ').append(next);
        }
        return joined.toString();
    }
}
