package dev.verbale;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Checks of a test that did not hold. The test went on after each, and fails with all of them at its end.
 *
 * @since 0.2.0
 */
public final class ChecksFailed extends AssertionError {

    private static final long serialVersionUID = 1;

    /** Of each: this one says which failed, and the failures themselves have the rest. */
    private static final int LONGEST_MESSAGE = 2_000;

    private final transient List<Throwable> failures;

    /**
     * @param names of the checks that failed, in order
     * @param failures what each threw, in the same order
     */
    public ChecksFailed(List<String> names, List<Throwable> failures) {
        super(message(copied(names), copied(failures)));
        this.failures = copied(failures).stream().filter(Objects::nonNull).toList();
        for (Throwable failure : this.failures) if (failure != this) addSuppressed(failure);
    }

    /** What the checks threw, in order. */
    public List<Throwable> failures() {
        return failures;
    }

    /** A list of somebody's own may do anything; this one is thrown to tell of something else. */
    private static <T> List<@Nullable T> copied(@Nullable List<? extends @Nullable T> given) {
        try {
            return given == null ? List.of() : new ArrayList<>(given);
        } catch (RuntimeException | Error broken) {
            return List.of();
        }
    }

    private static String message(List<@Nullable String> names, List<@Nullable Throwable> failures) {
        int count = names.size();
        var text = new StringBuilder(count == 1 ? "1 check failed:" : count + " checks failed:");
        for (int i = 0; i < count; i++) {
            text.append("\n  ").append(names.get(i)).append(": ");
            if (i < failures.size()) text.append(message(failures.get(i)));
        }
        return text.toString();
    }

    /** Whatever an exception class of the suite's own does when it is asked. */
    private static @Nullable String message(@Nullable Throwable failure) {
        try {
            String text = failure == null ? null : failure.getMessage();
            if (text == null || text.length() <= LONGEST_MESSAGE) return text;
            return text.substring(0, LONGEST_MESSAGE) + " ... (" + text.length() + " characters)";
        } catch (RuntimeException | Error broken) {
            return "(" + broken.getClass().getSimpleName() + " in getMessage)";
        }
    }
}
