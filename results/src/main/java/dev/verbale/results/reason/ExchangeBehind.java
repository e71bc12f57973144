package dev.verbale.results.reason;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.net.URI;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The request whose response is why a test failed.
 *
 * @param method such as {@code POST}
 * @param where host and path, with what differs from request to request left out
 * @param status 0 where there was no response
 * @param expected the status that the test wanted; 0 where it did not say
 * @param error what the body says of it, masked; empty where nobody recorded one
 * @param line of the body, as it was; empty where there is none
 */
record ExchangeBehind(String method, String where, int status, int expected, String error, String line) {

    private static final Pattern ASSERTED_STATUS = Pattern.compile(
            "(?is)(?:status(?: code)?|response code|http)\\b.{0,80}?\\b([1-5]\\d\\d)\\b.{0,60}?\\b(?:was|got|actual|received|is)\\D{0,12}([1-5]\\d\\d)\\b");

    /** Two numbers that could be one, of an assertion that does not say what they are. */
    private static final Pattern COMPARED_STATUS = Pattern.compile(
            "(?i)expected:? <?\\[?([1-5]\\d\\d)[>\\]]?\\s+but (?:was|found):? <?\\[?([1-5]\\d\\d)[>\\]]?\\s*$");

    private static final Pattern ERROR_FIELD = Pattern.compile(
            "\"(?:code|error|errorCode|error_code|type|title|message|detail|reason)\"\\s*:\\s*\"((?:[^\"\\\\]|\\\\.){1,300})\"");

    /** Of a failing test; null where its exchanges do not explain it. */
    static @Nullable ExchangeBehind of(TestResult test, Failure failure, BrowserFindings browser) {
        List<Entry.ExchangeEntry> exchanges = new ArrayList<>();
        gather(test.entries(), exchanges);
        exchanges.sort(Comparator.comparing(exchange -> exchange.at().plus(exchange.duration())));
        int[] asserted = numbers(ASSERTED_STATUS, failure);
        if (asserted != null) {
            for (int i = exchanges.size() - 1; i >= 0; i--)
                if (exchanges.get(i).made().status() == asserted[1])
                    return of(exchanges.get(i).made()).insteadOf(asserted[0]);
            return null;
        }
        int[] compared = numbers(COMPARED_STATUS, failure);
        if (compared != null && !exchanges.isEmpty()) {
            ExchangeMade last = exchanges.get(exchanges.size() - 1).made();
            if (last.status() == compared[1]) return of(last).insteadOf(compared[0]);
        }
        // Only the last one: after any other the suite went on, so that its error was wanted, or made good.
        if (!exchanges.isEmpty()) {
            ExchangeMade made = exchanges.get(exchanges.size() - 1).made();
            boolean wanted = ExchangeChecks.of(test).getOrDefault(made.id(), List.of()).stream()
                    .anyMatch(check -> check.outcome().equals(Outcome.PASSED));
            if (isError(made) && !wanted) return of(made);
        }
        List<BrowserFindings.Request> failed = browser.failed();
        if (failed.isEmpty()) return null;
        BrowserFindings.Request last = failed.get(failed.size() - 1);
        return new ExchangeBehind(last.method(), where(last.url()), last.status(), 0, "", "");
    }

    private static void gather(List<Entry> entries, List<Entry.ExchangeEntry> exchanges) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.ExchangeEntry exchange) exchanges.add(exchange);
            boolean tearsDown =
                    entry instanceof Entry.StepEntry step && step.kind().equals(StepKind.TEAR_DOWN);
            if (!tearsDown) gather(Entry.inside(entry), exchanges);
        }
    }

    private static boolean isError(ExchangeMade made) {
        return made.status() >= 500 || (made.response() == null && made.failure() != null);
    }

    /** What was expected and what came, where the failure is about two statuses; null otherwise. */
    private static int @Nullable [] numbers(Pattern pattern, Failure failure) {
        String message = failure.message();
        if (message == null) return null;
        Matcher two = pattern.matcher(Texts.cut(message, 2_000));
        return two.find() ? new int[] {Integer.parseInt(two.group(1)), Integer.parseInt(two.group(2))} : null;
    }

    private ExchangeBehind insteadOf(int status) {
        return new ExchangeBehind(method, where, this.status, status, error, line);
    }

    private static ExchangeBehind of(ExchangeMade made) {
        String text = made.response() == null || made.response().body() == null
                ? null
                : made.response().body().text();
        String errorText = text == null ? "" : errorText(text);
        return new ExchangeBehind(
                made.request().method(),
                where(made.request().url()),
                made.status(),
                0,
                errorText.isEmpty()
                        ? ""
                        : MaskedMessage.of(errorText, false, List.of(), Set.of())
                                .text(),
                text == null ? "" : Texts.cut(text.strip().replaceAll("\\s+", " "), 200));
    }

    private static String errorText(String body) {
        Matcher field = ERROR_FIELD.matcher(Texts.cut(body, 4_000));
        return field.find() ? field.group(1) : "";
    }

    /** Host and path. */
    static String where(String url) {
        URI uri;
        try {
            uri = new URI(url);
        } catch (java.net.URISyntaxException odd) {
            return Texts.cut(url.replaceAll("[?#].*", ""), 200);
        }
        String host = uri.getHost() == null || RefusedConnection.isLoopback(uri.getHost())
                ? ""
                : uri.getHost().toLowerCase(Locale.ROOT);
        String path = Endpoint.path(url, "…");
        return host + (path.isEmpty() ? "/" : path);
    }

    /** Without the error, which a browser's list of requests does not hold. */
    String endpoint() {
        return method + " " + where + "|" + status;
    }

    String title() {
        if (status == 0) return method + " " + where + " got no response";
        String wanted = expected == 0 || status >= 500 ? "" : ", expected " + expected;
        return method + " " + where + " answered " + status + wanted;
    }
}
