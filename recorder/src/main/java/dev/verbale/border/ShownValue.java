package dev.verbale.border;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Values of the suite as texts. */
public final class ShownValue {

    private ShownValue() {}

    /** {@code value} as text, whatever its {@code toString} does. */
    public static String of(@Nullable Object value) {
        try {
            return String.valueOf(value instanceof Object[] array ? Arrays.deepToString(array) : (Object) text(value));
        } catch (Throwable broken) {
            ThreadStop.goesOn(broken);
            return refusal("toString", value, broken);
        }
    }

    /** Not by {@code valueOf}, which is null where the value's own text is. */
    private static String text(@Nullable Object value) {
        String text = value == null ? null : value.toString();
        return text == null ? "null" : text;
    }

    /** Says that {@code value} threw {@code broken} when it was asked. */
    public static String refusal(String method, @Nullable Object value, Throwable broken) {
        return "(" + broken.getClass().getSimpleName() + " in " + method + " of "
                + (value == null ? "null" : value.getClass().getName()) + ")";
    }
}
