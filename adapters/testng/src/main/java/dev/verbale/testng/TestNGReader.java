package dev.verbale.testng;

import dev.verbale.spi.ThrowableReader;
import dev.verbale.vocabulary.Outcome;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.SkipException;

/**
 * Reads what TestNG throws: a test that gives itself up, and the expected and actual value in the message of an assertion.
 *
 * @since 0.2.0
 */
public final class TestNGReader implements ThrowableReader {

    private static final String ASSERTIONS = "org.testng.";
    private static final String BETWEEN = "] but found [";
    private static final Pattern VALUES = Pattern.compile(".*?expected \\[(.*)] but found \\[(.*)]", Pattern.DOTALL);

    /** As {@link java.util.ServiceLoader} makes it. */
    public TestNGReader() {}

    @Override
    public Optional<Reading> read(Throwable thrown) {
        if (thrown instanceof SkipException skip)
            return skip.isSkip() ? Optional.of(Reading.of(Outcome.ABORTED).build()) : Optional.empty();
        if (thrown == null || thrown.getClass() != AssertionError.class || !isOfTestNG(thrown)) return Optional.empty();
        String message = String.valueOf(thrown.getMessage());
        int between = message.indexOf(BETWEEN);
        if (between < 0 || message.indexOf(BETWEEN, between + 1) >= 0) return Optional.empty(); // who knows which one
        Matcher values = VALUES.matcher(message);
        if (!values.matches()) return Optional.empty();
        return Optional.of(Reading.of(Outcome.FAILED)
                .expected(values.group(1))
                .actual(values.group(2))
                .build());
    }

    private static boolean isOfTestNG(Throwable thrown) {
        StackTraceElement[] frames = thrown.getStackTrace();
        return frames.length > 0 && frames[0].getClassName().startsWith(ASSERTIONS);
    }
}
