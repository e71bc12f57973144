package dev.verbale.selenium;

import dev.verbale.spi.ThrowableReader;
import dev.verbale.vocabulary.Outcome;
import java.util.Optional;
import java.util.regex.Pattern;
import org.openqa.selenium.WebDriverException;

/**
 * Reads what Selenium throws without what it adds to each message: versions, capabilities, the session. A run's failures
 * could not be grouped by their cause otherwise, since a session's id is another one each time.
 *
 * @since 0.2.0
 */
public final class WebDriverReader implements ThrowableReader {

    private static final Pattern ADDED = Pattern.compile(
            "\\s*(\\n\\s*\\(Session info:|[;\\n]\\s*For documentation on this error|\\n(Build info|System info|Driver info|Host info):).*",
            Pattern.DOTALL);
    private static final Pattern LAMBDA = Pattern.compile("\\$\\$Lambda[\\w$]*/0x[0-9a-f]+@[0-9a-f]+");

    @Override
    public Optional<Reading> read(Throwable thrown) {
        if (!(thrown instanceof WebDriverException failed)) return Optional.empty();
        String message = failed.getRawMessage();
        if (message == null) return Optional.empty();
        String plain = LAMBDA.matcher(ADDED.matcher(message).replaceFirst("")).replaceAll(" (a lambda)");
        return Optional.of(Reading.of(Outcome.ERRORED).message(plain).build());
    }
}
