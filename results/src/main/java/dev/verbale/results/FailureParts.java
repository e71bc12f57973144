package dev.verbale.results;

import dev.verbale.event.Failure;
import java.util.List;
import java.util.regex.Pattern;

/**
 * The failures that one reports together: a soft assertion, all of several. What only came after a failure, as in a tear-down, is no part
 * of it.
 *
 * @since 0.2.0
 */
public final class FailureParts {

    /** What says no more than how many there are. */
    private static final Pattern HEADER = Pattern.compile(
            "\\d+ \\w+ failed[.:]|The following \\d+ assertions? failed:|(?:.* )?\\(\\d+ failures?\\)|-- failure \\d+ --");

    private FailureParts() {}

    /** In their order; empty where {@code failure} is one by itself. */
    public static List<Failure> of(Failure failure) {
        String message = failure.message();
        boolean isHeader = message == null
                || message.isBlank()
                || isHeader(
                        message.stripLeading().lines().findFirst().orElse("").strip());
        return isHeader ? failure.gathered() : List.of();
    }

    /** Whether {@code line} of a message says no more than how many failures there are. */
    static boolean isHeader(String line) {
        return HEADER.matcher(line).matches();
    }
}
