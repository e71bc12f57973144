package dev.verbale.rules;

import java.util.List;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/**
 * What a rule wants of a text: a part of it, as it stands; between slashes, a regular expression that is found in it.
 *
 * @param written as the file has it
 * @param pattern which finds it
 * @since 0.2.0
 */
public record TextPattern(String written, Pattern pattern) {

    /** Longer texts are looked at as far as this: a rule must not take minutes over a dump. */
    private static final int LONGEST = 20_000;

    /** @throws PatternSyntaxException where it is no regular expression */
    static TextPattern of(String written) {
        boolean isExpression = written.length() > 2 && written.startsWith("/") && written.endsWith("/");
        return new TextPattern(
                written,
                isExpression
                        ? Pattern.compile(written.substring(1, written.length() - 1), Pattern.DOTALL)
                        : Pattern.compile(Pattern.quote(written)));
    }

    boolean matches(List<String> texts) {
        for (String text : texts)
            if (pattern.matcher(text.length() > LONGEST ? text.substring(0, LONGEST) : text)
                    .find()) return true;
        return false;
    }
}
