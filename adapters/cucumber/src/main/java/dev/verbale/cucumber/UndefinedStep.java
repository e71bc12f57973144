package dev.verbale.cucumber;

import java.util.List;

/** A step of a feature that no code belongs to. Its message says what the code may look like. */
final class UndefinedStep extends RuntimeException {

    private static final long serialVersionUID = 1;

    UndefinedStep(String step, List<String> snippets) {
        super(message(step, snippets), null, false, false);
    }

    private static String message(String step, List<String> snippets) {
        String plain = "No code belongs to the step '" + step + "'.";
        return snippets.isEmpty() ? plain : plain + " It may look like this:\n\n" + String.join("\n\n", snippets);
    }
}
