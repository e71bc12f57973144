package dev.verbale.results.element;

import dev.verbale.results.Entry;
import dev.verbale.vocabulary.StepKind;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What a locator found where it found something: a watched browser writes each action as a step, {@code click *Borrow* [#lend]}, with what
 * the element said and the locator that found it.
 */
final class FoundBefore {

    private static final Pattern ACTION = Pattern.compile("[^*]*\\*([^*]+)\\*.* \\[(.*)]", Pattern.DOTALL);

    private FoundBefore() {}

    /** What the element said that {@code locator} found in the last such step among {@code entries}; null where there is none. */
    static @Nullable String text(List<Entry> entries, String locator) {
        String last = null;
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            Matcher action = ACTION.matcher(step.name());
            boolean isIt = step.kind().equals(StepKind.BROWSER)
                    && action.matches()
                    && action.group(2).equals(locator);
            String found = isIt ? action.group(1) : text(step.entries(), locator);
            if (found != null) last = found;
        }
        return last;
    }
}
