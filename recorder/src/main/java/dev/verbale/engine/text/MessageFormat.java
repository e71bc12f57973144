package dev.verbale.engine.text;

import dev.verbale.engine.guard.UserCode;
import org.jspecify.annotations.Nullable;

/** Puts values into the placeholders of a line. */
public final class MessageFormat {

    private static final String PLACEHOLDER = "{}";

    private MessageFormat() {}

    /** {@code text} with each <code>{}</code> replaced by the next of {@code values}, and what is left over appended. */
    public static Pieces of(UserCode userCode, @Nullable String text, @Nullable Object @Nullable [] values) {
        String template = String.valueOf(text);
        var filled = new Pieces();
        if (values == null || values.length == 0) return filled.add(template);
        int from = 0;
        int used = 0;
        for (int position = template.indexOf(PLACEHOLDER);
                position >= 0 && used < values.length;
                position = template.indexOf(PLACEHOLDER, from)) {
            filled.add(template.substring(from, position)).add(userCode.text(values[used++]));
            from = position + PLACEHOLDER.length();
        }
        filled.add(template.substring(from));
        while (used < values.length) filled.add(" ").add(userCode.text(values[used++]));
        return filled;
    }
}
