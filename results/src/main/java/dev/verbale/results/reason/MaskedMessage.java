package dev.verbale.results.reason;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A message without what differs from one failure to the next of the same reason: numbers, ids, times, the values that an
 * assertion compared, and what libraries add about the machine.
 *
 * @param text for comparing, not for reading
 */
record MaskedMessage(String text) {

    /** Masking costs time by the character, and what tells reasons apart stands at the beginning. */
    private static final int LONGEST = 4_000;

    private static final Pattern LIBRARY_TAIL =
            Pattern.compile("(?m)^\\s*(?:Build info:|System info:|Driver info:|Command:"
                    + "|Capabilities\\s?[{:]|Session ID:|Element: \\[|\\(Session info:|For documentation on this error|at \\[Source:"
                    + "|\\(tried for |name=|stack=).*$");

    private static final Pattern FRAME = Pattern.compile("(?m)^\\s*(?:-> )?at [\\w.$/@<>-]+[ (].*$");

    private static final Pattern COMPARED =
            Pattern.compile("(?si)(expected:? ?(?:is )?)<(.*?)>( but (?:was|is):? ?)<(.*?)>(?=\\.?\\s*$|\\.?\\n)");
    private static final Pattern FIELD = Pattern.compile("\"([A-Za-z_][\\w.-]*)\"\\s*:");
    private static final Pattern BRACKETED = Pattern.compile("<[^<>\\n]{0,500}>");
    private static final Pattern AFTER_LABEL = Pattern.compile(
            "(?im)^(\\s*-?\\s*(?:expected|actual|but was|was|but|got|found|actual value|expected value)\\s*:)(.*)$");
    /** How assertions set off the values that they compare. */
    private static final Pattern INDENTED =
            Pattern.compile("(?: {2}|\\t)(?!\\s*(?:but|Actual|Expected)\\b)(?![\\w.$]+(?:Error|Exception): ).*");

    private static final Pattern BEFORE_VALUE =
            Pattern.compile("(?:Expecting|to|not to|but|and|when|within|in|The following|Actual|Expected)\\b.*");
    private static final Pattern LOOKED_FOR = Pattern.compile("to (?:contain|start with|end with|match)\\b.*:");

    private static final Pattern QUOTED = Pattern.compile("\"[^\"\\n]{0,1000}\"");
    /** A name of something in a program, which is no value. */
    private static final Pattern CODE = Pattern.compile("\"[A-Za-z_$][\\w$.(), \\[\\]-]*\"");

    private static final Pattern NAMED = Pattern.compile(
            "(?i)(?:\\b(?:field|property|column|table|relation|key|parameter|attribute|method|class|type|invoke|because|of|read|index|constraint|violation)[: ]+$)");
    /** But for the description of an assertion, which stands in brackets before what was expected. */
    private static final Pattern JSON = Pattern.compile("(?m)\\{.*\\}|\\[.*\\](?!\\s*(?i:expect|\\w+ ==>))");

    private static final Pattern ENUM_CONSTANT = Pattern.compile("(No enum constant [\\w.$]+)\\.\\w+");

    private static final Pattern UUID =
            Pattern.compile("\\b[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}\\b");
    private static final Pattern HASH = Pattern.compile("@[0-9a-f]{4,16}\\b");
    private static final Pattern HEX = Pattern.compile("\\b(?=[0-9a-f]*[a-f])(?=[0-9a-f]*[0-9])[0-9a-f]{8,64}\\b");
    private static final Pattern MOMENT = Pattern.compile(
            "\\b\\d{4}-\\d\\d-\\d\\d(?:[T ]\\d\\d:\\d\\d(?::\\d\\d(?:[.,]\\d+)?)?)?(?:Z|[+-]\\d\\d:?\\d\\d)?\\b");
    private static final Pattern MAIL = Pattern.compile("[\\w.+-]+@[\\w-]+(?:\\.[\\w-]+)+");
    private static final Pattern TEMPORARY =
            Pattern.compile("(?:/tmp|/var/folders|[A-Z]:\\\\Users\\\\[^\\\\\\s]+\\\\AppData)[^\\s\"':,)]*");
    private static final Pattern NUMBER = Pattern.compile("(?<![\\p{Alpha}_])[-+]?\\d+(?:[.,:]\\d+)*");
    private static final Pattern NUMBER_IN_WORD = Pattern.compile("\\d+");
    private static final Pattern BLANKS = Pattern.compile("\\s+");

    /** What assertions say whatever they are about. */
    private static final Set<String> STOCK = Set.of(
            "expected",
            "expecting",
            "in",
            "or",
            "found",
            "got",
            "but",
            "was",
            "were",
            "is",
            "are",
            "to",
            "be",
            "a",
            "an",
            "the",
            "of",
            "value",
            "actual",
            "equal",
            "equals",
            "true",
            "false",
            "null",
            "not",
            "same",
            "as",
            "it",
            "and",
            "condition",
            "satisfied",
            "failure",
            "failures",
            "has",
            "empty",
            "size",
            "present",
            "absent",
            "optional",
            "contain",
            "with",
            "multiple",
            "first",
            "element",
            "instance",
            "failed",
            "assertion",
            "assert",
            "object",
            "boolean",
            "did",
            "no",
            "have",
            "had",
            "test",
            "values",
            "should");

    private static final Set<String> OF_LIBRARIES =
            Set.of("json", "path", "doesn", "match", "expectation", "response", "body", "xpath");

    private static final Pattern WORD = Pattern.compile("\\p{L}+");

    /**
     * @param isAssertion whether it compares values, which then are what differs
     * @param ownNames of the test itself: they differ from test to test
     */
    static MaskedMessage of(String message, boolean isAssertion, List<String> ownNames) {
        String text = message.length() > LONGEST ? message.substring(0, LONGEST) : message;
        text = LIBRARY_TAIL.matcher(text).replaceAll("");
        text = FRAME.matcher(text).replaceAll("");
        for (String name : ownNames) if (isDistinct(name)) text = text.replace(name, "~");
        text = ENUM_CONSTANT.matcher(text).replaceAll("$1");
        text = UUID.matcher(text).replaceAll("#");
        text = MOMENT.matcher(text).replaceAll("#");
        text = MAIL.matcher(text).replaceAll("#");
        text = TEMPORARY.matcher(text).replaceAll("#");
        text = HASH.matcher(text).replaceAll("#");
        if (isAssertion) text = withoutCompared(text);
        else text = withoutQuoted(text);
        text = HEX.matcher(text).replaceAll("#");
        text = NUMBER.matcher(text).replaceAll("#");
        text = NUMBER_IN_WORD.matcher(text).replaceAll("#");
        return new MaskedMessage(BLANKS.matcher(text).replaceAll(" ").strip());
    }

    /** Not a word that a message may hold for its own sake. */
    private static boolean isDistinct(String name) {
        return name.length() >= 12
                || name.chars().skip(1).anyMatch(c -> c == '_' || Character.isUpperCase(c) || Character.isDigit(c));
    }

    private static String withoutQuoted(String message) {
        return QUOTED.matcher(message).replaceAll(quoted -> {
            String before = message.substring(Math.max(0, quoted.start() - 30), quoted.start());
            boolean isName = CODE.matcher(quoted.group()).matches()
                    && NAMED.matcher(before).find();
            return isName ? Matcher.quoteReplacement(quoted.group()) : "#";
        });
    }

    private static String withoutCompared(String message) {
        String text = COMPARED.matcher(message)
                .replaceAll(two -> Matcher.quoteReplacement(
                        two.group(1) + shape(two.group(2)) + two.group(3) + shape(two.group(4))));
        text = BRACKETED.matcher(text).replaceAll("#");
        text = AFTER_LABEL.matcher(text).replaceAll(MaskedMessage::label);
        text = withoutIndented(text);
        text = QUOTED.matcher(text).replaceAll("#");
        return JSON.matcher(text).replaceAll("#");
    }

    /** Of a JSON object its fields' names: they say what was compared, whatever its values and their order. */
    private static String shape(String value) {
        if (!value.startsWith("{")) return "#";
        var names = new TreeSet<String>();
        Matcher field = FIELD.matcher(value);
        while (field.find()) names.add(field.group(1));
        return "#" + (names.isEmpty() ? "" : " " + String.join(" ", names));
    }

    /** The values set off from the words between them, but for the texts that were looked for: a test looks for the same ones. */
    private static String withoutIndented(String message) {
        var text = new StringBuilder();
        boolean isValue = false;
        boolean lookedFor = false;
        for (String line : message.split("\n", -1)) {
            boolean isIndented = INDENTED.matcher(line).matches();
            if (!isIndented) {
                isValue = BEFORE_VALUE.matcher(line).matches();
                lookedFor = LOOKED_FOR.matcher(line).matches();
            }
            if (!isIndented || !isValue) text.append(line);
            else text.append(lookedFor ? line.replace('"', '\'').replaceAll("[{}\\[\\]]", " ") : "#");
            text.append('\n');
        }
        return text.toString();
    }

    /** Behind its label a value; or, as with some libraries, words around one that is masked already. */
    private static String label(MatchResult line) {
        return Matcher.quoteReplacement(line.group(1) + (line.group(2).contains("#") ? line.group(2) : " #"));
    }

    /** The words that not any assertion could say. */
    Set<String> topics() {
        Set<String> topics = new TreeSet<>();
        var words = WORD.matcher(text);
        while (words.find()) {
            String word = words.group().toLowerCase(Locale.ROOT);
            if (word.length() > 3 && !STOCK.contains(word) && !OF_LIBRARIES.contains(word)) topics.add(word);
        }
        return topics;
    }

    /** Whether it says nothing of its own: any test could fail with it. */
    boolean isStock() {
        var words = WORD.matcher(text);
        while (words.find()) if (!STOCK.contains(words.group().toLowerCase(Locale.ROOT))) return false;
        return true;
    }
}
