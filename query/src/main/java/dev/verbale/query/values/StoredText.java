package dev.verbale.query.values;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A text as every database takes it: neither endless, nor with what is no character. */
public final class StoredText {

    public static final int LONG = 100_000;
    public static final int NAME = 2_000;
    public static final int WORD = 100;

    private StoredText() {}

    /** The same for null. */
    public static @Nullable String orNull(@Nullable String text, int longest) {
        return text == null ? null : of(text, longest);
    }

    /** At most {@code longest} characters of {@code text}. */
    public static String of(String text, int longest) {
        Objects.requireNonNull(text);
        boolean isPlain = text.length() <= longest;
        for (int i = 0; isPlain && i < text.length(); i++)
            isPlain = text.charAt(i) != 0 && !Character.isSurrogate(text.charAt(i));
        return isPlain ? text : cleaned(text, longest);
    }

    /** PostgreSQL refuses a zero and half a pair. */
    private static String cleaned(String text, int longest) {
        var cleaned = new StringBuilder(Math.min(text.length(), longest));
        text.codePoints().limit(longest).forEach(point -> {
            boolean isNone = point == 0 || (point >= Character.MIN_SURROGATE && point <= Character.MAX_SURROGATE);
            if (cleaned.length() + Character.charCount(point) <= longest)
                cleaned.appendCodePoint(isNone ? 0xFFFD : point);
        });
        return cleaned.toString();
    }
}
