package dev.verbale.history.compare;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** What the failures of tests say, word by word: a value that stands in one is what the failure is about. */
final class WordsOfFailure {

    private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}._-]+");
    private static final int LONGEST = 20_000;
    /** A text of several words is looked for as it stands. */
    private static final int SHORTEST_TEXT = 4;

    private final Set<String> words = new HashSet<>();
    private final StringBuilder texts = new StringBuilder();

    WordsOfFailure(TestResult... tests) {
        for (TestResult test : tests) {
            if (test.failure() != null) add(test.failure());
            checks(test.entries());
        }
        for (String word : BETWEEN.split(texts)) words.add(word.replaceAll("\\.+$", ""));
    }

    private void add(Failure failure) {
        for (String text : new @Nullable String[] {failure.message(), failure.expected(), failure.actual()})
            if (text != null && texts.length() < LONGEST)
                texts.append(text, 0, Math.min(text.length(), LONGEST)).append('\n');
        for (Failure part : failure.gathered()) if (texts.length() < LONGEST) add(part);
    }

    private void checks(List<Entry> entries) {
        List<List<Entry>> open = new ArrayList<>(List.of(entries));
        while (!open.isEmpty())
            for (Entry entry : open.remove(open.size() - 1)) {
                if (entry instanceof Entry.CheckEntry check && check.failure() != null) add(check.failure());
                List<Entry> inside = Entry.inside(entry);
                if (!inside.isEmpty()) open.add(inside);
            }
    }

    /** @param value as it stands in a JSON document; null for none */
    boolean has(@Nullable String value) {
        if (value == null) return false;
        String text = value.startsWith("\"") && value.endsWith("\"") && value.length() > 1
                ? value.substring(1, value.length() - 1)
                : value;
        return words.contains(text) || (text.length() >= SHORTEST_TEXT && texts.indexOf(text) >= 0);
    }
}
