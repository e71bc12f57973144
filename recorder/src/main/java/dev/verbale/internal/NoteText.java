package dev.verbale.internal;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Puts values into the places of a note's text. */
public final class NoteText {

    private static final String PLACE = "{}";

    private NoteText() {}

    /** {@code text} with each <code>{}</code> replaced by the next of {@code values}, and what is left over appended. */
    public static String of(@Nullable String text, @Nullable Object @Nullable [] values) {
        String template = String.valueOf(text);
        if (values == null || values.length == 0) return template;
        var filled = new StringBuilder();
        int from = 0;
        int used = 0;
        for (int place = template.indexOf(PLACE);
                place >= 0 && used < values.length;
                place = template.indexOf(PLACE, from)) {
            filled.append(template, from, place).append(shown(values[used++]));
            from = place + PLACE.length();
        }
        filled.append(template, from, template.length());
        while (used < values.length) filled.append(' ').append(shown(values[used++]));
        return filled.toString();
    }

    /** {@code value} as text, whatever its {@code toString} does. */
    static String shown(@Nullable Object value) {
        try {
            if (value instanceof Object[] array) return Arrays.deepToString(array);
            return String.valueOf(value);
        } catch (RuntimeException broken) {
            return "(" + broken.getClass().getSimpleName() + " in toString of "
                    + (value == null ? "null" : value.getClass().getName()) + ")";
        }
    }
}
