package dev.verbale.results;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A reason that one or more tests share. Two failures are of one cause when their types are the same and their messages
 * are, apart from numbers and quoted values; for failed assertions, which often say the same of different things, the
 * place in the suite's own code has to be the same too.
 *
 * @param title the first line of the first failure's message that says something, or its type where it has none
 * @param type the throwable's class name
 * @param place the nearest line of the suite's own code, or nothing where there is none
 * @param tests in order; never empty
 */
public record Cause(String title, String type, String place, List<TestResult> tests) {

    /** It stands in lists, and what makes it one with others is looked for in it by pattern. */
    private static final int LONGEST_TITLE = 500;

    public Cause {
        tests = List.copyOf(tests);
    }

    /** The causes in {@code run}, the most frequent first, then in the order of their first test. */
    public static List<Cause> of(Run run) {
        Map<String, List<TestResult>> byFingerprint = new LinkedHashMap<>();
        for (TestResult test : run.needingAttention()) {
            Failure failure = test.failure();
            if (failure == null) continue; // unfinished: nobody knows why
            byFingerprint
                    .computeIfAbsent(fingerprint(test.outcome(), failure), key -> new ArrayList<>())
                    .add(test);
        }
        List<Cause> causes = new ArrayList<>();
        for (List<TestResult> tests : byFingerprint.values()) {
            Failure first = tests.get(0).failure();
            if (first != null)
                causes.add(new Cause(title(first), first.type(), StackText.ownPlace(first.stack()), tests));
        }
        causes.sort((a, b) -> Integer.compare(b.tests().size(), a.tests().size()));
        return causes;
    }

    private static String fingerprint(Outcome outcome, Failure failure) {
        String said = title(failure)
                .replaceAll("\"[^\"]*\"|'[^']*'|<[^>]*>", "_")
                .replaceAll("0x\\p{XDigit}+|\\p{XDigit}{8,}|\\d+", "#");
        String place = outcome == Outcome.FAILED ? StackText.ownPlace(failure.stack()) : "";
        return failure.type() + "\n" + said + "\n" + place;
    }

    /**
     * The first line that says something: some libraries begin their messages with an empty one, or with how many they are
     * about to tell.
     */
    public static String title(Failure failure) {
        String message = failure.message();
        if (message == null || message.isBlank()) return failure.type();
        List<String> lines = message.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .limit(2)
                .toList();
        boolean counts = lines.size() > 1 && lines.get(0).matches("\\d+ \\w+ failed[.:]");
        return Texts.cut(lines.get(counts ? 1 : 0), LONGEST_TITLE);
    }

    /** The nearest line of the suite's own code in a failure's stack trace, or nothing where there is none. */
    public static String place(Failure failure) {
        return StackText.ownPlace(failure.stack());
    }
}
