package dev.verbale.history.digest;

import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.json.JsonIn;
import dev.verbale.results.Problem;
import dev.verbale.vocabulary.Outcome;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.zip.GZIPInputStream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Reads digests. Of one that is torn, foreign or newer, what can be read counts, and a {@link Problem} says what cannot.
 *
 * @since 0.2.0
 */
public final class DigestReader {

    /** Unpacked. A digest of 100,000 tests with their steps has a tenth of it; what unpacks to more is no digest. */
    private static final long LARGEST = 1_000_000_000;

    private static final int LONGEST_LINE = 200_000_000;

    private final String file;
    private final Consumer<Problem> problems;
    private final Map<String, List<String>> tables = new HashMap<>();
    private final Map<String, String> facts = new HashMap<>();
    private final List<TestDigest> tests = new ArrayList<>();
    private final Map<String, List<String>> tagLists = new HashMap<>(); // most tests have one of few
    private @Nullable String run;
    private Instant started = Instant.EPOCH;
    private long millis;
    private long rows = -1;
    private int row;
    private boolean complete = true;
    private final List<String> broken = new ArrayList<>();
    private boolean madeUp;
    private boolean isDigest;
    private int[] workers = {};

    private final @Nullable TableCache cache;

    private DigestReader(String file, Consumer<Problem> problems, @Nullable TableCache cache) {
        this.file = file;
        this.problems = problems;
        this.cache = cache;
    }

    /** What {@code file} remembers; empty where that is nothing. */
    public static Optional<RunDigest> read(Path file, Consumer<Problem> problems) {
        return read(file, problems, null);
    }

    /**
     * Reads a digest without its steps, for who reads many and asks for none.
     *
     * @param cache of tables that the files before had too
     */
    public static Optional<RunDigest> readWithoutSteps(Path file, Consumer<Problem> problems, TableCache cache) {
        return read(file, problems, cache);
    }

    private static Optional<RunDigest> read(Path file, Consumer<Problem> problems, @Nullable TableCache cache) {
        String name = String.valueOf(file.getFileName());
        var reader = new DigestReader(name, problems, cache);
        if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
            reader.problem(0, "is no regular file, and left out");
            return Optional.empty();
        }
        try (InputStream in = new GZIPInputStream(new BufferedInputStream(Files.newInputStream(file)), 1 << 15)) {
            reader.lines(in);
        } catch (EOFException torn) {
            reader.problem(0, "ends in its middle: what was read until there counts");
        } catch (IOException unreadable) {
            reader.problem(0, "cannot be read (" + unreadable.getMessage() + ")");
        }
        return reader.digest();
    }

    private void lines(InputStream in) throws IOException {
        var line = new LineBytes();
        byte[] chunk = new byte[1 << 15];
        int number = 1;
        long all = 0;
        for (int read = in.read(chunk); read >= 0; read = in.read(chunk)) {
            all += read;
            if (all > LARGEST) throw new IOException("it unpacks to more than " + LARGEST + " bytes");
            int from = 0;
            for (int i = 0; i < read; i++) {
                if (chunk[i] != '\n') continue;
                line.add(chunk, from, i);
                if (!line(line, number++)) return;
                line.clear();
                from = i + 1;
            }
            line.add(chunk, from, read);
        }
        if (line.length > 0) line(line, number);
    }

    /** Bytes of one line. */
    private static final class LineBytes {
        private byte[] bytes = new byte[1 << 12];
        private int length;

        private void add(byte[] from, int start, int end) throws IOException {
            if (length + (end - start) > LONGEST_LINE)
                throw new IOException("a line has more than " + LONGEST_LINE + " bytes");
            if (length + (end - start) > bytes.length)
                bytes = java.util.Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + (end - start)));
            System.arraycopy(from, start, bytes, length, end - start);
            length += end - start;
        }

        private void clear() {
            length = 0;
        }
    }

    /** @return whether to read on */
    private boolean line(LineBytes line, int number) {
        if (line.length == 0) return true;
        if (cache != null && number > 1) {
            if (line.bytes[0] == '[' && plainRow(line)) return true;
            Map<String, List<String>> known =
                    line.bytes[0] == '{' && !isOfWorkers(line) ? cache.get(line.bytes, line.length) : null;
            if (known != null) {
                tables.putAll(known);
                return true;
            }
        }
        int rowBefore = row;
        try (JsonParser json = JsonIn.parser(line.bytes, 0, line.length)) {
            JsonToken token = json.nextToken();
            if (number == 1) return head(json, token);
            if (token == JsonToken.START_OBJECT) table(json, line);
            else if (token == JsonToken.START_ARRAY) row(json, number);
            else unreadable(number, "is neither a table nor a row, and left out", rowBefore);
        } catch (JacksonException | ArithmeticException | DateTimeException broken) {
            String why = "cannot be read (" + firstLine(broken) + ")";
            unreadable(number, number == 1 ? why + ": the file is no digest" : why, rowBefore);
            return number > 1;
        }
        return true;
    }

    /** Behind the first row each line is one: the next one is of the next test, whatever became of this. */
    private void unreadable(int number, String what, int rowBefore) {
        problem(number, what);
        if (rowBefore > 0) row = rowBefore + 1;
    }

    private static String firstLine(Exception broken) {
        String message = broken instanceof JacksonException json ? json.getOriginalMessage() : broken.getMessage();
        return String.valueOf(message).lines().findFirst().orElse("");
    }

    private boolean head(JsonParser json, @Nullable JsonToken token) {
        if (token != JsonToken.START_OBJECT) {
            problem(1, "is no digest's first line: the file is left out");
            return false;
        }
        long format = 0;
        for (String name = json.nextName(); name != null; name = json.nextName()) {
            JsonToken value = json.nextToken();
            switch (name) {
                case DigestWriter.WORD -> format = json.getValueAsLong();
                case "run" -> run = json.getString();
                case "started" -> started = Instant.parse(json.getString());
                case "millis" -> millis = Math.max(0, json.getValueAsLong());
                case "rows" -> rows = json.getValueAsLong();
                case "broken" -> broken.addAll(texts(json, value));
                case "madeUp" -> madeUp = value == JsonToken.VALUE_TRUE;
                case "complete" -> complete = value != JsonToken.VALUE_FALSE;
                case "facts" -> facts(json, value);
                default -> json.skipChildren(); // of a later version
            }
        }
        if (format < 1 || run == null) {
            problem(1, "is no digest's first line: the file is left out");
            return false;
        }
        if (format > DigestWriter.FORMAT)
            problem(
                    1,
                    "has format " + format + " and this reader knows " + DigestWriter.FORMAT
                            + ": what is new in it is left out. Read it with a newer Verbale");
        isDigest = true;
        return true;
    }

    private void facts(JsonParser json, JsonToken value) {
        if (value != JsonToken.START_OBJECT) {
            json.skipChildren();
            return;
        }
        for (String fact = json.nextName(); fact != null; fact = json.nextName()) {
            JsonToken stated = json.nextToken();
            if (stated == JsonToken.VALUE_STRING) facts.put(fact, json.getString());
            else json.skipChildren();
        }
    }

    private void table(JsonParser json, LineBytes line) {
        Map<String, List<String>> read = new HashMap<>();
        for (String name = json.nextName(); name != null; name = json.nextName()) {
            if (json.nextToken() != JsonToken.START_ARRAY) {
                json.skipChildren();
                continue;
            }
            read.put(name, texts(json, JsonToken.START_ARRAY));
        }
        tables.putAll(read);
        if (read.containsKey(DigestWriter.WORKERS)) workers = workers(text(DigestWriter.WORKERS, 0));
        else if (cache != null) cache.put(line.bytes, line.length, read);
    }

    private static final byte[] OF_WORKERS = "{\"workers\"".getBytes(StandardCharsets.US_ASCII);

    private static boolean isOfWorkers(LineBytes line) {
        return line.length > OF_WORKERS.length
                && java.util.Arrays.equals(line.bytes, 0, OF_WORKERS.length, OF_WORKERS, 0, OF_WORKERS.length);
    }

    /** What is no number among them is no worker. */
    private static int[] workers(@Nullable String numbers) {
        if (numbers == null || numbers.isEmpty()) return new int[0];
        String[] parts = numbers.split(" ");
        int[] workers = new int[parts.length];
        for (int i = 0; i < parts.length; i++)
            workers[i] = parts[i].length() < 6
                            && !parts[i].isEmpty()
                            && parts[i].chars().allMatch(Character::isDigit)
                    ? Integer.parseInt(parts[i])
                    : -1;
        return workers;
    }

    /** Those of the array that begins; what is no text among them is an empty one. */
    private static List<String> texts(JsonParser json, JsonToken begins) {
        List<String> texts = new ArrayList<>();
        if (begins != JsonToken.START_ARRAY) {
            json.skipChildren();
            return texts;
        }
        for (JsonToken text = json.nextToken(); text != JsonToken.END_ARRAY; text = json.nextToken()) {
            texts.add(text == JsonToken.VALUE_STRING ? json.getString() : "");
            json.skipChildren();
        }
        return texts;
    }

    /**
     * Reads a row as our writer writes it, up to its steps; 2.5 million of them take seconds by a parser.
     *
     * @return false where it is not one: then the parser is asked
     */
    private boolean plainRow(LineBytes line) {
        byte[] bytes = line.bytes;
        int end = line.length - 1;
        if (end < 9 || bytes[end] != ']' || bytes[1] != '"') return false;
        int at = 2;
        while (at < end && (bytes[at] >= 'a' && bytes[at] <= 'z' || bytes[at] == '-')) at++;
        if (at >= end || bytes[at] != '"') return false;
        String outcome = new String(bytes, 2, at - 2, StandardCharsets.US_ASCII);
        at++;
        int[] numbers = new int[3];
        int count = 0;
        for (; at < end; count++) {
            if (bytes[at++] != ',') return false;
            boolean isNegative = bytes[at] == '-';
            if (isNegative) at++;
            int first = at;
            int value = 0;
            while (at < end && bytes[at] >= '0' && bytes[at] <= '9' && at - first < 9)
                value = value * 10 + (bytes[at++] - '0');
            if (at == first || (bytes[first] == '0' && at - first > 1)) return false; // no number of JSON
            if (count < numbers.length) numbers[count] = isNegative ? -value : value;
        }
        if (at != end || count < numbers.length) return false;
        String key = text("tests", row);
        if (key == null) return false;
        row++;
        add(row - 1, key, outcome, numbers[0], numbers[1], numbers[2], List.of());
        return true;
    }

    private void row(JsonParser json, int number) {
        int index = row++; // also where it cannot be read: the next one is of the next test
        String key = text("tests", index);
        String outcome = json.nextToken() == JsonToken.VALUE_STRING ? json.getString() : null;
        int time = next(json);
        int attempts = next(json);
        int reason = next(json);
        if (key == null || outcome == null) {
            problem(number, "is a row of no test in the table, and left out");
            return;
        }
        List<StepTime> steps = new ArrayList<>();
        while (json.nextToken() == JsonToken.VALUE_NUMBER_INT) {
            String step = text("steps", json.getIntValue());
            int lasted = next(json);
            if (step != null && steps.size() < RunDigest.MAX_STEPS) steps.add(new StepTime(step, Math.max(0, lasted)));
        }
        add(index, key, outcome, time, attempts, reason, steps);
    }

    private void add(int index, String key, String outcome, int time, int attempts, int reason, List<StepTime> steps) {
        String name = text("names", index);
        tests.add(new TestDigest(
                key,
                name == null ? key : name,
                Outcome.ofWord(outcome),
                Math.max(0, time),
                Math.max(1, Math.abs(attempts)),
                attempts < 0,
                text("reasons", reason),
                steps,
                origin(index)));
    }

    private TestDigest.Origin origin(int index) {
        String tags = text("tags", index);
        return new TestDigest.Origin(
                filled("classes", index),
                filled("methods", index),
                tags == null || tags.isEmpty()
                        ? List.of()
                        : tagLists.computeIfAbsent(tags, all -> List.of(all.split(DigestWriter.BETWEEN_TAGS))),
                filled("owners", index),
                index < workers.length ? workers[index] : -1);
    }

    private @Nullable String filled(String table, int position) {
        String text = text(table, position);
        return text == null || text.isEmpty() ? null : text;
    }

    private static int next(JsonParser json) {
        return json.nextToken() == JsonToken.VALUE_NUMBER_INT ? json.getIntValue() : 0;
    }

    private @Nullable String text(String table, int position) {
        List<String> texts = tables.getOrDefault(table, List.of());
        return position < 0 || position >= texts.size() ? null : texts.get(position);
    }

    private Optional<RunDigest> digest() {
        if (!isDigest || run == null) return Optional.empty();
        if (rows > tests.size())
            problem(0, "has " + tests.size() + " of its " + rows + " tests; the others are missing");
        List<ReasonDigest> reasons = new ArrayList<>();
        for (int i = 0; i < tables.getOrDefault("reasons", List.of()).size(); i++) {
            String title = text("titles", i);
            reasons.add(new ReasonDigest(String.valueOf(text("reasons", i)), title == null ? "" : title));
        }
        return Optional.of(new RunDigest(
                run,
                started,
                Duration.ofMillis(millis),
                facts,
                complete && rows <= tests.size(),
                madeUp,
                tests,
                reasons,
                broken));
    }

    private void problem(int line, String what) {
        problems.accept(new Problem(file, line, what));
    }
}
