package dev.verbale.internal;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Puts values into the places of a note's text. */
final class NoteText {

    private static final String PLACE = "{}";

    private NoteText() {}

    /** {@code text} with each <code>{}</code> replaced by the next of {@code values}, and what is left over appended. */
    static Pieces of(Foreign foreign, @Nullable String text, @Nullable Object @Nullable [] values) {
        String template = String.valueOf(text);
        var filled = new Pieces();
        if (values == null || values.length == 0) return filled.add(template);
        int from = 0;
        int used = 0;
        for (int place = template.indexOf(PLACE);
                place >= 0 && used < values.length;
                place = template.indexOf(PLACE, from)) {
            filled.add(template.substring(from, place)).add(foreign.text(values[used++]));
            from = place + PLACE.length();
        }
        filled.add(template.substring(from));
        while (used < values.length) filled.add(" ").add(foreign.text(values[used++]));
        return filled;
    }

    /** {@code value} as text, whatever its {@code toString} does. */
    static String shown(@Nullable Object value) {
        try {
            return String.valueOf(value instanceof Object[] array ? Arrays.deepToString(array) : (Object) text(value));
        } catch (Throwable broken) {
            Stopped.goesOn(broken);
            return refusal("toString", value, broken);
        }
    }

    /** Not by {@code valueOf}, which is null where the value's own text is. */
    private static String text(@Nullable Object value) {
        String text = value == null ? null : value.toString();
        return text == null ? "null" : text;
    }

    /** Says that {@code value} threw {@code broken} when it was asked. */
    static String refusal(String method, @Nullable Object value, Throwable broken) {
        return "(" + broken.getClass().getSimpleName() + " in " + method + " of "
                + (value == null ? "null" : value.getClass().getName()) + ")";
    }
}
