package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.history.compare.JsonValues;
import dev.verbale.results.Entry;
import dev.verbale.results.Entry.CheckEntry;
import dev.verbale.results.Texts;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What the checks of a test found: what a check says of its value, and of one that looked at a path of a response, such as
 * {@code body beds[1].metres: is <3>}, what the recorded body has there.
 */
final class CheckedValues {

    /** A table of rows has no room for more. */
    private static final int MAX = 8;

    private static final int LONGEST = 200;

    private static final Pattern OF_BODY = Pattern.compile("(body ([\\w.\\[\\]]+)): .*", Pattern.DOTALL);

    private CheckedValues() {}

    /** The checks that found a value, with it, in their order; only the first ones. Named as what was looked at. */
    static List<CheckEntry> of(List<Entry> entries, Map<Integer, List<CheckEntry>> byExchange) {
        List<CheckEntry> found = new ArrayList<>();
        gather(entries, byExchange, found);
        return found;
    }

    private static void gather(List<Entry> entries, Map<Integer, List<CheckEntry>> byExchange, List<CheckEntry> found) {
        for (Entry entry : entries) {
            if (entry instanceof CheckEntry check && check.actual() != null) add(found, check, check.actual());
            else if (entry instanceof Entry.ExchangeEntry exchange)
                ofBody(exchange.made(), byExchange.getOrDefault(exchange.made().id(), List.of()), found);
            gather(Entry.inside(entry), byExchange, found);
        }
    }

    private static void ofBody(ExchangeMade made, List<CheckEntry> checks, List<CheckEntry> found) {
        Map<String, String> body = null;
        for (CheckEntry check : checks) {
            Matcher path = OF_BODY.matcher(check.name());
            if (found.size() == MAX || check.actual() != null && check.failure() == null || !path.matches()) continue;
            if (body == null) body = values(made);
            if (body == null) return;
            String value = body.get("$." + path.group(2));
            if (value != null) add(found, named(check, path.group(1)), value);
        }
    }

    private static void add(List<CheckEntry> found, CheckEntry check, String value) {
        boolean isNew = found.stream().noneMatch(one -> one.name().equals(check.name()));
        if (isNew && found.size() < MAX)
            found.add(new CheckEntry(
                    check.at(), check.name(), check.outcome(), null, check.exchange(), Texts.cut(value, LONGEST)));
    }

    private static CheckEntry named(CheckEntry check, String name) {
        return new CheckEntry(check.at(), name, check.outcome(), check.failure(), check.exchange());
    }

    private static @Nullable Map<String, String> values(ExchangeMade made) {
        return made.response() == null || made.response().body() == null
                ? null
                : JsonValues.of(made.response().body().text());
    }
}
