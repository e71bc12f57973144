package dev.verbale.results.brief;

import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.vocabulary.Outcome;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a brief may hold.
 *
 * @param longest in characters, at least 500; what is least worth comes last, and is left out first
 * @param hasEnvironment whether what was stated of where the run was made is in it
 * @param code of the suite, for the lines around the one that failed and the commits that touched them last; null for none
 * @param label what the team says of the failure; null for nothing
 * @param difference what first went otherwise than in an attempt that passed, in a sentence; null where nothing is known of it
 * @param good the same tests where they passed, by their keys: an element that is not found is looked for by what it was then
 * @since 0.2.0
 */
public record BriefOptions(
        int longest,
        boolean hasEnvironment,
        @Nullable CodeAtHand code,
        @Nullable String label,
        @Nullable String difference,
        Map<String, TestResult> good) {

    private static final int SHORTEST = 500;

    /** @throws IllegalArgumentException where {@code longest} is less than 500 */
    public BriefOptions {
        if (longest < SHORTEST)
            throw new IllegalArgumentException(longest + " characters hold no brief; give it " + SHORTEST + " or more");
        good = Map.copyOf(good);
    }

    /** Of a failure of which nobody says anything. */
    public BriefOptions(int longest, boolean hasEnvironment, @Nullable CodeAtHand code, Map<String, TestResult> good) {
        this(longest, hasEnvironment, code, null, null, good);
    }

    /** With the environment, and with nothing of code or of other runs. */
    public static BriefOptions longest(int longest) {
        return new BriefOptions(longest, true, null, Map.of());
    }

    /** The same, of a failure that the team says {@code words} of. */
    public BriefOptions withLabel(@Nullable String words) {
        return new BriefOptions(longest, hasEnvironment, code, words, difference, good);
    }

    /** The same, of an attempt that {@code sentence} sets beside one that passed. */
    public BriefOptions withDifference(@Nullable String sentence) {
        return new BriefOptions(longest, hasEnvironment, code, label, sentence, good);
    }

    /** The tests of {@code run} that passed, by their keys. */
    public static Map<String, TestResult> passed(Run run) {
        Map<String, TestResult> passed = new HashMap<>();
        for (TestResult test : run.tests()) if (test.outcome().equals(Outcome.PASSED)) passed.put(test.key(), test);
        return passed;
    }
}
