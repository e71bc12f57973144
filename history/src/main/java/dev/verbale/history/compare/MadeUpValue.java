package dev.verbale.history.compare;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Whether a value is made anew for each run: an id, a moment, an address. It differs always, and tells nothing. */
final class MadeUpValue {

    private static final Pattern NAME =
            Pattern.compile(".*(?:(?i:\\b(?:id|at)|uuid|token|timestamp|time|date|created|updated"
                    + "|expires|etag|nonce|session|millis|elapsed|duration)|(?<=[a-z])(?:Id|At)|_(?:id|at))'?\\]?");
    private static final Pattern VALUE = Pattern.compile("\"?(?:"
            + "\\d{4}-\\d{2}-\\d{2}(?:[T ].*)?|\\d{10,}|https?://.*|\\p{XDigit}{8}(?:-\\p{XDigit}{4}){3}-\\p{XDigit}{12}"
            + "|(?=\\p{XDigit}*\\d)\\p{XDigit}{16,})\"?");

    private MadeUpValue() {}

    static boolean is(JsonDifference value) {
        return NAME.matcher(value.path()).matches() || is(value.before()) || is(value.after());
    }

    private static boolean is(@Nullable String value) {
        return value != null && VALUE.matcher(value).matches();
    }
}
