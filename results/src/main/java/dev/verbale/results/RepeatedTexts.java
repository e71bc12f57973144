package dev.verbale.results;

import org.jspecify.annotations.Nullable;

/**
 * Makes one of texts that are read again and again, such as names of steps: a run of a million steps has a few thousand of them.
 * Of two that meet in one slot the older is forgotten. Of one thread.
 */
final class RepeatedTexts {

    private static final int SLOTS = 1 << 12;
    private static final int LONGEST = 200; // what is longer is rarely said twice

    private final @Nullable String[] slots = new String[SLOTS];

    String of(String text) {
        if (text.length() > LONGEST) return text;
        int slot = text.hashCode() & (SLOTS - 1);
        String known = slots[slot];
        if (text.equals(known)) return known;
        slots[slot] = text;
        return text;
    }

    @Nullable
    String orNull(@Nullable String text) {
        return text == null ? null : of(text);
    }
}
