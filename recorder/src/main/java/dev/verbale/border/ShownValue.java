package dev.verbale.border;

import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Values of the suite as texts. */
public final class ShownValue {

    private static final int DEEPEST = 3;
    private static final int MAX_ELEMENTS = 100;

    private ShownValue() {}

    /**
     * {@code value} as text, whatever its {@code toString} does. An array is shown by what it holds; an object that has no text of its own
     * by its class, for the number that the JVM gives it is another one in each run.
     */
    public static String of(@Nullable Object value) {
        try {
            if (value == null || !value.getClass().isArray()) return withoutIdentity(text(value), value);
            String all = Arrays.deepToString(new Object[] {value}); // of whatever type
            String text = all.substring(1, all.length() - 1);
            return value instanceof Object[] array && text.indexOf('@') >= 0
                    ? withoutIdentities(text, array, DEEPEST)
                    : text;
        } catch (Throwable broken) {
            ThreadStop.goesOn(broken);
            return refusal("toString", value, broken);
        }
    }

    private static String withoutIdentities(String text, Object[] array, int depth) {
        String shown = text;
        for (int i = 0; i < Math.min(MAX_ELEMENTS, array.length); i++) {
            if (array[i] instanceof Object[] inner)
                shown = depth == 0 ? shown : withoutIdentities(shown, inner, depth - 1);
            else shown = withoutIdentity(shown, array[i]);
        }
        return shown;
    }

    /** What {@link Object#toString} says of it, where it says that, without the number. */
    private static String withoutIdentity(String text, @Nullable Object value) {
        if (value == null || text.indexOf('@') < 0) return text;
        String name = value.getClass().getName();
        String identity = name + "@" + Integer.toHexString(System.identityHashCode(value));
        if (!text.contains(identity)) return text;
        int lambda = name.indexOf("$$Lambda"); // numbered too
        String plain = lambda < 0 ? name : name.substring(0, lambda) + " lambda";
        String shown = plain.substring(plain.lastIndexOf('.') + 1);
        return Pattern.compile(Pattern.quote(identity) + "(?![0-9a-f])")
                .matcher(text)
                .replaceAll(Matcher.quoteReplacement(shown));
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
