package dev.verbale.junit;

import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.platform.engine.UniqueId;

/**
 * The identity of a test that is the same in every run, on every machine and in every language:
 * {@code dev.orto.RotaTest$Swapping.swaps(int, int)#2}. It is made of the platform's unique id, never of a display name.
 */
final class TestKey {

    private static final Set<String> CLASSES = Set.of("class", "class-template", "runner", "spec");
    private static final Set<String> NESTED = Set.of("nested-class", "nested-class-template");
    private static final Set<String> METHODS =
            Set.of("method", "test-template", "test-factory", "property", "field", "feature");

    /** Spock numbers its methods; what a feature is called is what its author wrote. */
    private static final Pattern NUMBERED = Pattern.compile("\\$spock_feature_\\d+_\\d+");

    private TestKey() {}

    /** @param method what the method is called that the test is, or belongs to */
    static String of(UniqueId id, String folded, String method) {
        if (folded.isEmpty()) return id.toString();
        return folded.contains("$spock_feature_")
                ? NUMBERED.matcher(folded).replaceFirst(Matcher.quoteReplacement(method))
                : folded;
    }

    /** Of all segments; empty where they say nothing. */
    static String folded(UniqueId id) {
        String folded = "";
        for (UniqueId.Segment segment : id.getSegments()) folded = folded(folded, segment, id);
        return folded;
    }

    /** Of what has {@code around} without its last segment, which is {@code segment}: an invocation need not begin from the engine. */
    static String folded(String around, UniqueId.Segment segment, UniqueId id) {
        String type = segment.getType();
        String value = segment.getValue();
        if (type.equals("test-template-invocation")) return around + value; // #2: what most of many tests are
        if (type.equals("engine")) return around;
        if (METHODS.contains(type)) return around + "." + value;
        if (CLASSES.contains(type)) {
            if (isInside(value, around)) return value; // as jqwik has a class in a class
            return joined(around, value);
        }
        if (type.equals("group") && value.startsWith(around + "$")) return value; // jqwik's
        if (NESTED.contains(type)) return around + "$" + value;
        if (type.equals("test") && isOld(id)) return old(around, value);
        if (type.equals("iteration")) return around + "#" + fromOne(value);
        if (value.startsWith("#")) return around + value; // an invocation of a template, or a dynamic test
        return joined(around, value);
    }

    private static boolean isInside(String value, String around) {
        return !around.isEmpty()
                && value.length() > around.length()
                && value.charAt(around.length()) == '$'
                && value.startsWith(around);
    }

    private static String joined(String around, String value) {
        return around.isEmpty() ? value : around + "/" + value;
    }

    /** Spock counts from 0, and everybody else from 1. */
    private static String fromOne(String number) {
        return number.matches("\\d{1,9}") ? String.valueOf(Integer.parseInt(number) + 1) : number;
    }

    private static boolean isOld(UniqueId id) {
        return id.getSegments().stream().anyMatch(segment -> segment.getType().equals("runner"));
    }

    /** {@code swaps[2]} of {@code swaps[2](dev.orto.RotaTest)}, as JUnit 4 describes it; a row alone says nothing new. */
    private static String old(String around, String value) {
        int type = value.lastIndexOf('(');
        if (type > 0) return around + "." + value.substring(0, type);
        return value.startsWith("[") ? around : joined(around, value);
    }
}
