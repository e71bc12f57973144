package dev.verbale;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Two values of a check that should have been equal. Its message has both as they were when they were compared.
 *
 * @since 0.2.0
 */
public final class ValuesDiffer extends AssertionError {

    private static final long serialVersionUID = 1;

    private final String expected;
    private final String actual;

    private ValuesDiffer(String expected, String actual, String message) {
        super(message);
        this.expected = expected;
        this.actual = actual;
    }

    /** What is wrong with {@code actual}; null where it equals {@code expected}, arrays by what is in them. */
    static @Nullable ValuesDiffer of(@Nullable Object expected, @Nullable Object actual) {
        if (Objects.deepEquals(expected, actual)) return null;
        String wanted = text(expected);
        String found = text(actual);
        boolean looksEqual = wanted.equals(found);
        return new ValuesDiffer(
                wanted,
                found,
                "expected " + wanted + (looksEqual ? type(expected) : "") + ", but was " + found
                        + (looksEqual ? type(actual) : ""));
    }

    /** What was wanted, as text. */
    public String expected() {
        return expected;
    }

    /** What was found, as text. */
    public String actual() {
        return actual;
    }

    /** An array by what is in it; an object whose text cannot be had by its class. */
    static String text(@Nullable Object value) {
        if (value == null) return "null";
        try {
            if (!value.getClass().isArray()) return String.valueOf(value.toString());
            String inside = Arrays.deepToString(new Object[] {value});
            return inside.substring(1, inside.length() - 1);
        } catch (VirtualMachineError fatal) {
            throw fatal;
        } catch (Throwable broken) {
            return value.getClass().getName();
        }
    }

    private static String type(@Nullable Object value) {
        return value == null ? "" : " (" + value.getClass().getName() + ")";
    }
}
