package dev.verbale.engine.text;

import dev.verbale.engine.guard.UserCode;
import dev.verbale.secrets.Redactor;
import org.jspecify.annotations.Nullable;

/** What callers give, as texts that a journal may hold. */
public final class Texts {

    /** Of names: of steps, tests, data. They stand in lists and in one line each. */
    private static final int LONGEST_NAME = 1_000;

    /** Of a log line of the test itself, a value, a message; what is longer is an attachment. */
    public static final int LONGEST = 8_000;

    private final Redactor redactor;
    private final Shortener shortener;
    private final UserCode userCode;

    public Texts(Redactor redactor, UserCode userCode) {
        this.redactor = redactor;
        this.shortener = new Shortener(redactor);
        this.userCode = userCode;
    }

    /** Null as a text. */
    public static String text(@Nullable String text) {
        return text == null ? "null" : text;
    }

    /** A name, cut where nobody would read on. */
    public String name(@Nullable String name) {
        return shortener.cut(text(name), LONGEST_NAME);
    }

    /** A value by its name: masked where that says that it is secret. */
    public String value(@Nullable String name, @Nullable Object value) {
        return name != null && redactor.isSecretName(name) ? Redactor.MASK : userCode.text(value);
    }

    public boolean isSecretName(@Nullable String name) {
        return name != null && redactor.isSecretName(name);
    }

    /** {@code text} without its secrets. For what does not pass through the journal, which masks by itself. */
    public String redacted(String text) {
        return redactor.redacted(text);
    }

    public @Nullable String redactedOrNull(@Nullable String text) {
        return text == null ? null : redactor.redacted(text);
    }

    /** {@code text}, or its beginning and how much is left out. */
    public String cut(String text, int longest) {
        return shortener.cut(text, longest);
    }

    public @Nullable String cutOrNull(@Nullable String text, int longest) {
        return text == null ? null : shortener.cut(text, longest);
    }

    public Shortener shortener() {
        return shortener;
    }

    public UserCode userCode() {
        return userCode;
    }
}
