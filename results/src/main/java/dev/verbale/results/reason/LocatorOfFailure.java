package dev.verbale.results.reason;

import dev.verbale.event.Failure;
import dev.verbale.results.reason.ThrownChain.Thrown;
import org.jspecify.annotations.Nullable;

/**
 * Which element of a page a failure is about.
 *
 * @since 0.2.0
 */
public final class LocatorOfFailure {

    private LocatorOfFailure() {}

    /** The locator of an element that was not in the page, as CSS where that can be said of it; null where it is no such failure. */
    public static @Nullable String missing(Failure failure) {
        Thrown decisive = ThrownChain.of(failure).decisive();
        Locator locator = Locator.of(decisive.type(), decisive.message() == null ? "" : decisive.message());
        return locator == null || locator.isThere() ? null : locator.text();
    }
}
