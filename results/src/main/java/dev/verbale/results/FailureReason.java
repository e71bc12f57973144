package dev.verbale.results;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A reason that one or more tests share. Two failures have one reason when their types are the same and their messages
 * are, apart from numbers and quoted values; for failed assertions, which often say the same of different things, the
 * frame of the suite's own code has to be the same too.
 *
 * @param title the first line of the first failure's message that says something, or its type where it has none
 * @param type the throwable's class name
 * @param frame the nearest one of the suite's own code, or nothing where there is none
 * @param tests in order; never empty
 * @since 0.2.0
 */
public record FailureReason(String title, String type, String frame, List<TestResult> tests) {

    /** It stands in lists, and what makes it one with others is looked for in it by pattern. */
    private static final int LONGEST_TITLE = 500;

    public FailureReason {
        tests = List.copyOf(tests);
    }

    /** The reasons in {@code run}, the most frequent first, then in the order of their first test. */
    public static List<FailureReason> of(Run run) {
        OwnFrames own = run.ownFrames();
        Map<String, List<TestResult>> byFingerprint = new LinkedHashMap<>();
        for (TestResult test : run.needingAttention()) {
            Failure failure = test.failure();
            if (failure == null) continue; // unfinished: nobody knows why
            byFingerprint
                    .computeIfAbsent(fingerprint(test.outcome(), failure, own), key -> new ArrayList<>())
                    .add(test);
        }
        List<FailureReason> reasons = new ArrayList<>();
        for (List<TestResult> tests : byFingerprint.values()) {
            Failure first = tests.get(0).failure();
            if (first != null)
                reasons.add(new FailureReason(title(first), first.type(), own.nearest(first.stack()), tests));
        }
        reasons.sort((a, b) -> Integer.compare(b.tests().size(), a.tests().size()));
        return reasons;
    }

    private static String fingerprint(Outcome outcome, Failure failure, OwnFrames own) {
        String text = title(failure)
                .replaceAll("\"[^\"]*\"|'[^']*'|<[^>]*>", "_")
                .replaceAll("0x\\p{XDigit}+|\\p{XDigit}{8,}|\\d+", "#");
        String frame = outcome.equals(Outcome.FAILED) ? own.nearest(failure.stack()) : "";
        return failure.type() + "\n" + text + "\n" + frame;
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
}
