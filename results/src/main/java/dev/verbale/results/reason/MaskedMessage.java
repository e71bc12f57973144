package dev.verbale.results.reason;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A message without what differs from one failure to the next of the same reason: numbers, ids, times, the values that an
 * assertion compared, and what libraries add about the machine.
 *
 * @param text for comparing, not for reading
 * @param description what an assertion was called by who wrote it, masked too; null where it was not
 * @param answered the status that a service answered with, where the message is about one; or nothing
 */
record MaskedMessage(String text, @Nullable String description, String answered) {

    /** As the common libraries write it in front. */
    private static final Pattern DESCRIPTION = Pattern.compile(
            "(?s)^(?:\\[([^\\]\n]+)\\]\\s|(.{1,200}?) ==> |([^\n]{1,200}?) expected \\[|([^\n]{1,200})\n\\s*(?:Expected|expected): ).*");

    /** A status that was answered is no number among others. */
    private static final Pattern STATUS =
            Pattern.compile("(?is)\\bstatus\\b.{0,80}?\\b(?:but (?:was|is|found)|got|actual)\\W{0,4}([1-5]\\d\\d)\\b");

    /** Databases add the statement, which says what was tried and not what is wrong. */
    private static final Pattern STATEMENT = Pattern.compile("(?s); SQL statement:.*?(?= \\[\\d+-\\d+\\]|$)");

    /** Masking costs time by the character, and what tells reasons apart stands at the beginning. */
    private static final int LONGEST = 4_000;

    private static final Pattern LIBRARY_TAIL =
            Pattern.compile("(?m)^[^\\S\\n]*+(?:Build info:|System info:|Driver info:|Command:"
                    + "|Capabilities\\s?[{:]|Session ID:|Element: \\[|\\(Session info:|For documentation on this error|at \\[Source:"
                    + "|\\(tried for |name=|stack=).*$");

    /** Over several failures, which is no more than how many they are. */
    private static final Pattern HEADER = Pattern.compile("(?m)^(?:.* )?\\(\\d+ failures?\\)$|^-- failure \\d+ --$");

    private static final Pattern FRAME = Pattern.compile("(?m)^[^\\S\\n]*+(?:-> )?at [\\w.$/@<>-]+[ (].*$");

    private static final Pattern COMPARED =
            Pattern.compile("(?si)(expected:? ?(?:is )?)<(.*?)>( but (?:was|is):? ?)<(.*?)>(?=\\.?\\s*$|\\.?\\n)");
    private static final Pattern FIELD = Pattern.compile("\"([A-Za-z_][\\w.-]*)\"\\s*:");
    private static final Pattern BRACKETED = Pattern.compile("<[^<>\\n]{0,500}>");
    private static final Pattern AFTER_LABEL = Pattern.compile(
            "(?im)^([^\\S\\n]*+(?:-[^\\S\\n]*+)?(?:expected|actual|but was|was|but|got|found|actual value|expected value)\\s*:)(.*)$");
    /** How assertions set off the values that they compare. */
    private static final Pattern INDENTED =
            Pattern.compile("(?: {2}|\\t)(?!\\s*(?:but|Actual|Expected)\\b)(?![\\w.$]+(?:Error|Exception): ).*");

    private static final Pattern BEFORE_VALUE =
            Pattern.compile("(?:Expecting|to|not to|but|and|when|within|in|The following|Actual|Expected)\\b.*");
    private static final Pattern LOOKED_FOR =
            Pattern.compile("to (?:contain(?! exactly| only)|start with|end with|match)\\b.*:");

    private static final Pattern QUOTED = Pattern.compile("\"[^\"\\n]{0,1000}\"");
    /** A name of something in a program, which is no value. */
    private static final Pattern CODE = Pattern.compile("\"[A-Za-z_$][\\w$.(), \\[\\]-]*\"");

    private static final Pattern NAMED = Pattern.compile(
            "(?i)(?:\\b(?:field|property|column|table|relation|key|parameter|attribute|method|class|type|invoke|because|of|read|index|constraint|violation)[: ]+$)");
    /** But for the description of an assertion, which stands in brackets before what was expected. */
    private static final Pattern JSON = Pattern.compile("(?m)\\{.*\\}|\\[.*\\](?!\\s*(?i:expect|\\w+ ==>))");

    /** What the JDK names without setting it off. */
    private static final Pattern BARE_NAME = Pattern.compile("(No enum constant [\\w.$]+\\.|Duplicate key )\\w+");
    /** One or several of them fell short: now this, now that, of one check. */
    private static final Pattern ELEMENTS =
            Pattern.compile("\\b(?:this element|these elements|some elements|the following elements?)\\b");

    private static final Pattern UUID =
            Pattern.compile("\\b[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}\\b");
    /** The class of a lambda is another in every JVM. */
    private static final Pattern LAMBDA = Pattern.compile("\\$\\$Lambda[\\w/$]*(?:@[0-9a-f]+)?");
    /** What a parser was given, which stands behind where it stopped. */
    private static final Pattern GIVEN = Pattern.compile("(?m)(\\bat (?:index|position|offset|column) \\d+): .*$");

    private static final Pattern EMPTY = Pattern.compile("(?<=\\s)(?:\\[]|\\{}|<>)(?=\\s|$)");
    /** What there would have been: "expected one of [name, grams]". */
    private static final Pattern CHOICES = Pattern.compile("(\\bone of:? )\\[[^\\]\\n]*]");
    /** As the JDK writes behind what is wrong: "Unknown time-zone ID: Europe/Orto". */
    private static final Pattern LAST_VALUE = Pattern.compile(": \\S+$");
    /** The JDK sets off values so; others set off names so. */
    private static final Pattern SINGLE_QUOTED =
            Pattern.compile("(?<![\\p{L}\\p{N}])'[^'\\n]{0,1000}'(?![\\p{L}\\p{N}])");

    private static final Pattern HEADERS = Pattern.compile("(?s)Headers are:.*$");
    private static final Pattern HASH = Pattern.compile("@[0-9a-f]{4,16}\\b");
    private static final Pattern HEX = Pattern.compile("\\b(?=[0-9a-f]*[a-f])(?=[0-9a-f]*[0-9])[0-9a-f]{8,64}\\b");
    private static final Pattern MOMENT = Pattern.compile(
            "\\b\\d{4}-\\d\\d-\\d\\d(?:[T ]\\d\\d:\\d\\d(?::\\d\\d(?:[.,]\\d+)?)?)?(?:Z|[+-]\\d\\d:?\\d\\d)?\\b");
    /** Looked for where such a word begins, and not at each of its letters: one of thousands would take seconds. */
    private static final Pattern MAIL = Pattern.compile("(?<![\\w.+-])[\\w.+-]++@[\\w-]+(?:\\.[\\w-]+)++");

    private static final Pattern TEMPORARY =
            Pattern.compile("(?:/tmp|/var/folders|[A-Z]:\\\\Users\\\\[^\\\\\\s]+\\\\AppData)[^\\s\"':,)]*");
    private static final Pattern NUMBER = Pattern.compile("(?<![\\p{Alpha}_])[-+]?\\d+(?:[.,:]\\d+)*+");
    private static final Pattern NUMBER_IN_WORD = Pattern.compile("\\d+");
    private static final Pattern SEVERAL = Pattern.compile("#(?:, ?#)++");
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
     * @param codeNames names of the suite's own code: their numbers tell one from another
     */
    static MaskedMessage of(String message, boolean isAssertion, List<String> ownNames, Set<String> codeNames) {
        String text = message.length() > LONGEST ? message.substring(0, LONGEST) : message;
        Matcher status = STATUS.matcher(text);
        String answered = status.find() ? " answered " + inLetters(status.group(1)) : "";
        text = STATEMENT.matcher(text).replaceAll("");
        text = LIBRARY_TAIL.matcher(text).replaceAll("");
        text = FRAME.matcher(text).replaceAll("");
        text = HEADER.matcher(text).replaceAll("");
        for (String name : ownNames) if (isDistinct(name)) text = text.replace(name, "~");
        for (String name : codeNames) if (hasNumber(name)) text = text.replace(name, digitsInLetters(name));
        text = BARE_NAME.matcher(text).replaceAll("$1#");
        text = UUID.matcher(text).replaceAll("#");
        text = MOMENT.matcher(text).replaceAll("#");
        text = MAIL.matcher(text).replaceAll("#");
        text = TEMPORARY.matcher(text).replaceAll("#");
        text = LAMBDA.matcher(text).replaceAll("#");
        text = HASH.matcher(text).replaceAll("#");
        text = GIVEN.matcher(text).replaceAll("$1");
        text = HEADERS.matcher(text).replaceAll("");
        text = CHOICES.matcher(text).replaceAll("$1#");
        if (isAssertion) text = withoutCompared(text);
        else text = withoutQuoted(text);
        text = HEX.matcher(text).replaceAll("#");
        text = NUMBER.matcher(text).replaceAll("#");
        text = NUMBER_IN_WORD.matcher(text).replaceAll("#");
        text = SEVERAL.matcher(text).replaceAll("#");
        return new MaskedMessage(
                BLANKS.matcher(text).replaceAll(" ").strip() + answered,
                isAssertion ? description(message, answered) : null,
                answered);
    }

    private static boolean hasNumber(String name) {
        return name.length() > 2 && name.chars().anyMatch(Character::isDigit) && Character.isLetter(name.charAt(0));
    }

    /** So that no mask takes them for a number. */
    private static String digitsInLetters(String text) {
        var letters = new StringBuilder();
        for (char c : text.toCharArray()) letters.append(c >= '0' && c <= '9' ? (char) ('a' + c - '0') : c);
        return letters.toString();
    }

    private static @Nullable String description(String message, String answered) {
        Matcher described = DESCRIPTION.matcher(message);
        if (!described.lookingAt()) return null;
        for (int form = 1; form <= described.groupCount(); form++)
            if (described.group(form) != null)
                return NUMBER_IN_WORD.matcher(described.group(form)).replaceAll("#") + answered;
        return null;
    }

    /** So that no mask takes it for a number. Of a service that is away, a gateway says now one and now another of three. */
    private static String inLetters(String status) {
        if (status.equals("502") || status.equals("503") || status.equals("504")) return "unavailable";
        return digitsInLetters(status);
    }

    /** Not a word that a message may hold for its own sake. */
    private static boolean isDistinct(String name) {
        return name.length() >= 12
                || name.chars().skip(1).anyMatch(c -> c == '_' || Character.isUpperCase(c) || Character.isDigit(c));
    }

    /** Of {@code message} as the JDK made it. */
    static String ofJdk(String message) {
        return LAST_VALUE
                .matcher(SINGLE_QUOTED.matcher(message).replaceAll("#"))
                .replaceAll(": #");
    }

    private static String withoutQuoted(String message) {
        return QUOTED.matcher(message).replaceAll(quoted -> {
            String before = message.substring(Math.max(0, quoted.start() - 30), quoted.start());
            boolean isName = CODE.matcher(quoted.group()).matches()
                    && NAMED.matcher(before).find();
            return isName ? Matcher.quoteReplacement(digitsInLetters(quoted.group())) : "#";
        });
    }

    private static String withoutCompared(String message) {
        String text = COMPARED.matcher(message)
                .replaceAll(two -> Matcher.quoteReplacement(
                        two.group(1) + shape(two.group(2)) + two.group(3) + shape(two.group(4))));
        text = BRACKETED.matcher(text).replaceAll("#");
        text = EMPTY.matcher(text).replaceAll("#");
        text = ELEMENTS.matcher(text).replaceAll("elements");
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

    /**
     * What tells it from others. A check of the suite's own that was given a name is known by it: which of its values was wrong is
     * said in another way each time.
     */
    String about(boolean isOwnCheck) {
        return isOwnCheck && description != null ? description : text;
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
