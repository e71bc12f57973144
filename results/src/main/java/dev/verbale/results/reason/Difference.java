package dev.verbale.results.reason;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What an assertion found changed, and what its test had changed before. Two sides of a product that show the same wrong thing
 * after the same request do so for one reason: an API's test and a page's, say.
 *
 * @param words what was expected and not there, and what was there instead, such as {@code Ada→Dario}
 * @param isDistinct whether the words are more than a number or a truth value
 * @param topics the words of the message that any assertion could not say
 * @param writes the requests of the test that change something, as method, host and path
 */
record Difference(String words, boolean isDistinct, Set<String> topics, Set<String> writes) {

    private static final Pattern MESSAGE = Pattern.compile(
            "(?s)[Ee]xpected:?\\s+(?:is )?[<\\[\"]?(.*?)[>\\]\"]?\\.?\\s+(?:but was:?|but found:?|Actual:)\\s+[<\\[\"]?(.*?)[>\\]\"]?\\.?\\s*$");
    private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{N}]+(?:[.,]\\d+)?");
    private static final Set<String> WRITING = Set.of("POST", "PUT", "PATCH", "DELETE");
    private static final Set<String> TRUTHS = Set.of("true", "false", "null");
    private static final int LONGEST = 2_000;

    /** Null where the failure compares nothing, or the test changed nothing. */
    static @Nullable Difference of(TestResult test, Failure failure, BrowserFindings browser, MaskedMessage masked) {
        Set<String> writes = new HashSet<>(browser.writes());
        for (Entry.ExchangeEntry exchange : Entry.ExchangeEntry.in(test.entries())) {
            ExchangeMade made = exchange.made();
            if (WRITING.contains(made.request().method()))
                writes.add(made.request().method() + " "
                        + ExchangeBehind.where(made.request().url()));
        }
        if (writes.isEmpty()) return null;
        String expected = failure.expected();
        String actual = failure.actual();
        if (expected == null || actual == null) {
            Matcher message = MESSAGE.matcher(failure.message() == null ? "" : failure.message());
            if (failure.message() == null || failure.message().length() > LONGEST || !message.find()) return null;
            expected = message.group(1);
            actual = message.group(2);
        }
        if (expected.length() > LONGEST || actual.length() > LONGEST) return null;
        List<String> gone = words(expected);
        List<String> come = words(actual);
        for (String word : List.copyOf(gone)) if (come.remove(word)) gone.remove(word);
        if (gone.isEmpty() || come.isEmpty() || gone.size() + come.size() > 6) return null;
        boolean isDistinct =
                gone.stream().anyMatch(Difference::isDistinct) && come.stream().anyMatch(Difference::isDistinct);
        return new Difference(
                String.join(" ", gone) + "→" + String.join(" ", come), isDistinct, masked.topics(), writes);
    }

    private static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(text);
        while (word.find()) words.add(word.group());
        return words;
    }

    private static boolean isDistinct(String word) {
        return word.length() > 1 && !TRUTHS.contains(word) && !Character.isDigit(word.charAt(0));
    }

    /** Whether both show the same wrong thing after the same request. */
    boolean isAlso(Difference other) {
        if (!words.equals(other.words)) return false;
        if (writes.stream().noneMatch(other.writes::contains)) return false;
        return isDistinct || new TreeSet<>(topics).removeAll(other.topics);
    }
}
