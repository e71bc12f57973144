package dev.verbale.results;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The value that an assertion found, to be found again in a response: as its status, its whole body, or a value of its JSON. */
final class ComparedValue {

    private static final Pattern STATUS = Pattern.compile("[1-5]\\d\\d");

    /** What any response may have. */
    private static final Pattern ANYWHERE = Pattern.compile("|null|true|false|-?\\d|\\[]|\\{}");

    private static final int LONGEST = 1_000;

    private final String value;
    private final boolean isAnywhere;
    private final Pattern inJson;

    /** As assertion libraries word it: {@code but was: <6.0>}, {@code Actual: 6.0}. */
    private static final Pattern FOUND = Pattern.compile(
            "(?im)\\b(?:actual|but (?:was|found|got)|got)\\b:?\\s*[<\"\\[]?(.{1,200}?)[>\"\\]]?[.]?\\s*$");

    /** What this failure found, by itself or as its message says it; null where nobody knows. */
    static @Nullable ComparedValue of(Failure failure) {
        if (failure.actual() != null) return new ComparedValue(failure.actual());
        Matcher found = FOUND.matcher(Texts.cut(String.valueOf(failure.message()), LONGEST));
        return found.find() ? new ComparedValue(found.group(1)) : null;
    }

    private ComparedValue(String value) {
        this.value = value.strip();
        isAnywhere = value.length() > LONGEST || ANYWHERE.matcher(this.value).matches();
        String quoted = Pattern.quote(this.value);
        inJson = Pattern.compile("\"" + quoted + "\"|(?<=[:,\\[\\s])" + quoted + "(?=[,}\\]\\s])");
    }

    boolean isIn(ExchangeMade made) {
        if (made.response() == null) return false;
        if (STATUS.matcher(value).matches() && made.status() == Integer.parseInt(value)) return true;
        String body =
                made.response().body() == null ? null : made.response().body().text();
        if (body == null || value.isEmpty()) return false;
        return body.strip().equals(value)
                || (!isAnywhere && inJson.matcher(body).find());
    }
}
