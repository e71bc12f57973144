package dev.verbale.secrets;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A pattern that is made when the first text asks for it: most suites never meet what most of these look for, and every JVM
 * that runs a test would make all of them. Safe from any thread.
 */
final class LatePattern {

    private final String expression;
    private final int flags;
    private volatile @Nullable Pattern made;

    LatePattern(String expression) {
        this(expression, 0);
    }

    LatePattern(String expression, int flags) {
        this.expression = expression;
        this.flags = flags;
    }

    Matcher matcher(CharSequence text) {
        Pattern pattern = made;
        if (pattern == null) made = pattern = Pattern.compile(expression, flags);
        return pattern.matcher(text);
    }
}
