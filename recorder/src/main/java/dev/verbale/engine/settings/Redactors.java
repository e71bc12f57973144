package dev.verbale.engine.settings;

import dev.verbale.RecorderOptions;
import dev.verbale.secrets.Redactor;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** Makes the redactor that the options ask for. */
public final class Redactors {

    private Redactors() {}

    /** A pattern that is none is a problem, and the others still mask. */
    public static Redactor of(RecorderOptions options, List<String> problems) {
        List<Pattern> patterns = new ArrayList<>();
        for (String pattern : options.secretPatterns()) {
            try {
                patterns.add(Pattern.compile(pattern));
            } catch (PatternSyntaxException broken) {
                problems.add("verbale.secret.patterns: '" + pattern + "' is no regular expression ("
                        + broken.getDescription() + "). It masks nothing.");
            }
        }
        return new Redactor(options.secretNames(), patterns);
    }
}
