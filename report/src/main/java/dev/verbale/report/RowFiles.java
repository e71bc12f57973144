package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.FirstDifference;
import dev.verbale.json.JsonOut;
import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.LastMoment;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.About.Link;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.StringJoiner;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * {@code data/rows/N.js}: the list of tests, {@value #ROWS_A_FILE} rows a file, which the page loads after it has shown its first view.
 * Each is the text of a JSON object of columns: a browser reads JSON in a text faster than a script. Its shape is {@code Row} in the
 * page's types.
 */
final class RowFiles {

    static final int ROWS_A_FILE = 10_000;

    private static final Pattern ACCENTS = Pattern.compile("\\p{Mn}+");
    private static final int LONGEST_MESSAGE = 500;
    private static final int LONGEST_DATA = 4_000;

    private final Run run;
    private final List<Row> rows;
    private final Map<String, Integer> reasonOf = new HashMap<>();
    private final DataSets dataSets;
    private final Map<String, String> lastOf;
    private final @Nullable EarlierRuns earlier;
    private final Set<String> fresh = new HashSet<>();
    /** How often a new failure's test fails anyway, in per cent. */
    private final Map<String, Integer> anyway = new HashMap<>();

    /** Of tests that passed on a later attempt only: the one before that had not, by key. */
    private final Map<String, Attempt> whyFlaky = new HashMap<>();

    private final Set<String> briefs;
    private final RulesOfTests rules;

    /**
     * @param why it did not pass
     * @param difference what went otherwise in it; null where nothing did
     */
    private record Attempt(String id, String why, @Nullable String difference) {}

    private static @Nullable String difference(TestResult failed, @Nullable TestResult passed) {
        return passed == null
                ? null
                : FirstDifference.ofAttempts(failed, passed)
                        .map(sentence -> Texts.cut(sentence, LONGEST_MESSAGE))
                        .orElse(null);
    }

    /** @param briefs ids of the tests whose failure there is a brief of */
    RowFiles(
            Run run,
            List<Row> rows,
            List<FailureReason> reasons,
            List<FailureReason> flaky,
            @Nullable EarlierRuns earlier,
            @Nullable Comparison news,
            RulesOfTests rules,
            Set<String> briefs) {
        this.run = run;
        this.briefs = briefs;
        this.rows = rows;
        this.earlier = earlier;
        this.rules = rules;
        if (news != null) {
            for (Comparison.Change change : news.newFailures()) added(change);
            for (String broken : news.newlyBroken()) fresh.add(Row.idOfContainer(broken));
        }
        for (int i = 0; i < reasons.size(); i++) {
            int number = i;
            reasons.get(i).tests().forEach(test -> reasonOf.put(test.id(), number));
            reasons.get(i).containers().forEach(one -> reasonOf.put(Row.idOfContainer(one.key()), number));
        }
        Map<String, TestResult> passed = new HashMap<>();
        if (!flaky.isEmpty()) run.flaky().forEach(test -> passed.put(test.key(), test));
        for (FailureReason reason : flaky)
            for (TestResult attempt : reason.tests())
                whyFlaky.put(
                        attempt.key(),
                        new Attempt(
                                attempt.id(),
                                Texts.cut(reason.title(), LONGEST_MESSAGE),
                                difference(attempt, passed.get(attempt.key()))));
        this.dataSets = new DataSets(rows);
        this.lastOf = lastAttempts(rows);
    }

    private @Nullable String why(Row row, Function<Attempt, @Nullable String> text) {
        Attempt before = row.recovered() ? whyFlaky.get(row.key()) : null;
        return before == null ? null : text.apply(before);
    }

    private void added(Comparison.Change change) {
        String key = change.after().key();
        fresh.add(key);
        if (change.isOfFlaky())
            anyway.put(key, (int) Math.max(1, Math.round(change.flakiness().rate() * 100)));
    }

    static int count(List<Row> rows) {
        return (rows.size() + ROWS_A_FILE - 1) / ROWS_A_FILE;
    }

    void write(Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("rows"));
        IdentityHashMap<Row, Integer> ranks = ranks();
        List<SideBySide.Part> files = new ArrayList<>();
        for (int file = 0; file < count(rows); file++) {
            List<Row> some = rows.subList(file * ROWS_A_FILE, Math.min(rows.size(), (file + 1) * ROWS_A_FILE));
            String name = String.valueOf(file);
            files.add(() -> {
                String columns = columns(some, ranks);
                ScriptFile.write(folder.resolve(name + ".js"), "rows", name, json -> json.writeString(columns));
            });
        }
        SideBySide.run(files);
    }

    private String columns(List<Row> some, IdentityHashMap<Row, Integer> ranks) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = JsonOut.generator(bytes)) {
            json.writeStartObject();
            columns(json, new Columns(json, some), ranks);
            json.writeEndObject();
        }
        return bytes.toString(StandardCharsets.UTF_8);
    }

    private void columns(JsonGenerator json, Columns columns, IdentityHashMap<Row, Integer> ranks) {
        columns.different("id", RowFiles::shortId);
        columns.different("name", Row::name);
        columns.numbers("rank", row -> ranks.getOrDefault(row, 0));
        columns.numbers("at", row -> RunFile.micros(Duration.between(run.started(), row.started())));
        columns.numbers("duration", row -> RunFile.micros(row.duration()));
        columns.repeated("outcome", row -> row.outcome().word());
        columns.repeated("className", Row::className);
        columns.repeated("module", row -> row.module().isEmpty() ? null : row.module());
        columns.repeatedLists("path", Row::path);
        columns.repeatedLists("tags", row -> row.tags().isEmpty() ? null : row.tags());
        columns.repeated("worker", Row::worker);
        columns.repeated("thread", Row::thread);
        columns.fewTexts("message", RowFiles::message);
        columns.fewNumbers("reason", row -> reasonOf.get(row.id()));
        columns.fewNumbers("rule", row -> rules.of(row.id()));
        columns.fewNumbers("attempts", row -> row.attempts() > 1 ? row.attempts() : null);
        columns.flag("superseded", Row::superseded);
        columns.flag("recovered", Row::recovered);
        columns.fewTexts("why", row -> why(row, Attempt::why));
        columns.fewTexts("difference", row -> why(row, Attempt::difference));
        columns.fewTexts("attemptBefore", row -> why(row, Attempt::id));
        columns.flag("container", row -> !row.isTest());
        columns.flag("brief", row -> briefs.contains(row.id()));
        columns.fewTexts("source", Row::source);
        columns.few(
                "about", row -> row.about().equals(About.NOTHING) ? null : row.about(), about -> about(json, about));
        columns.few("blockedBy", this::blockers, blockers -> {
            json.writeStartArray();
            for (String blocker : blockers) json.writeString(blocker);
            json.writeEndArray();
        });
        columns.fewTexts("before", this::before);
        columns.flag("fresh", row -> !row.superseded() && fresh.contains(row.key()));
        columns.fewNumbers("anyway", row -> row.superseded() ? null : anyway.get(row.key()));
        columns.fewTexts("data", RowFiles::data);
        columns.fewNumbers("set", dataSets::number);
        columns.few("values", row -> dataSets.number(row) == null ? null : row, row -> DataSets.writeValues(json, row));
        columns.few("found", dataSets::found, found -> DataSets.writeFound(json, found));
        columns.fewTexts("failing", dataSets::failing);
    }

    /** Where it begins with the name of its class, without that: it is most of it. */
    private static String shortId(Row row) {
        String type = row.className();
        if (type == null || !row.id().startsWith(type) || row.id().length() == type.length()) return "=" + row.id();
        return "." + row.id().substring(type.length());
    }

    private static boolean counts(Row row) {
        return row.isTest() && !row.superseded();
    }

    private @Nullable String before(Row row) {
        return earlier == null || !counts(row) ? null : earlier.rows().get(row.key());
    }

    /**
     * The position of each in the order of names: a browser takes a second and more to sort 100,000 texts. Capitals and accents count
     * for nothing, as in an index of a book; a collator of the JDK would take as long as the browser.
     */
    private IdentityHashMap<Row, Integer> ranks() {
        List<Named> named = new ArrayList<>(rows.size());
        for (Row row : rows) named.add(new Named(row, withoutAccents(row.name()).toLowerCase(Locale.ROOT)));
        named.sort(Comparator.comparing(Named::key));
        IdentityHashMap<Row, Integer> ranks = new IdentityHashMap<>();
        for (int i = 0; i < named.size(); i++) ranks.put(named.get(i).row(), i);
        return ranks;
    }

    private record Named(Row row, String key) {}

    private static String withoutAccents(String name) {
        if (name.chars().allMatch(c -> c < 0x80)) return name;
        return ACCENTS.matcher(Normalizer.normalize(name, Normalizer.Form.NFD)).replaceAll("");
    }

    /** The id of the row that counts, by the key of its test or container. */
    private static Map<String, String> lastAttempts(List<Row> rows) {
        Map<String, String> ids = new HashMap<>();
        for (Row row : rows) if (!row.superseded()) ids.put(row.key(), row.id());
        return ids;
    }

    /** What it was not run because of, as far as there is a row of it. */
    private @Nullable List<String> blockers(Row row) {
        if (row.blockedBy().isEmpty()) return null;
        List<String> there = row.blockedBy().stream()
                .map(key -> lastOf.getOrDefault(key, lastOf.get(Row.idOfContainer(key))))
                .filter(Objects::nonNull)
                .toList();
        return there.isEmpty() ? null : there;
    }

    private static void about(JsonGenerator json, About about) {
        json.writeStartObject();
        if (about.text() != null) json.writeStringProperty("text", about.text());
        if (about.severity() != null) json.writeStringProperty("severity", about.severity());
        if (about.owner() != null) json.writeStringProperty("owner", about.owner());
        json.writeArrayPropertyStart("links");
        for (Link link : about.links()) {
            json.writeStartObject();
            json.writeStringProperty("name", link.name());
            // Journals come from anywhere, and a link may be clicked: only addresses that a browser merely visits.
            if (link.address() != null && link.address().matches("(?i)https?://.*"))
                json.writeStringProperty("address", link.address());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** One line: the whole is in the test's own file. */
    private static @Nullable String message(Row row) {
        Failure failure = row.failure();
        if (row.reason() != null) return Texts.cut(row.reason(), LONGEST_MESSAGE);
        if (failure != null) return FailureTitle.of(failure);
        if (!row.outcome().equals(Outcome.UNFINISHED)) return null;
        String last = LastMoment.of(row.entries()).sentence();
        return last.isEmpty() ? null : Texts.cut(last, LONGEST_MESSAGE);
    }

    private static @Nullable String data(Row row) {
        var data = new StringJoiner(" ");
        for (Entry entry : row.entries())
            if (entry instanceof Entry.DataEntry named && data.length() < LONGEST_DATA)
                data.add(named.name() + "=" + Texts.cut(named.value(), LONGEST_MESSAGE));
        return data.length() == 0 ? null : data.toString();
    }
}
