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
    static String of(UniqueId id, String method) {
        String key = of(id);
        return key.contains("$spock_feature_")
                ? NUMBERED.matcher(key).replaceFirst(Matcher.quoteReplacement(method))
                : key;
    }

    static String of(UniqueId id) {
        var key = new StringBuilder();
        for (UniqueId.Segment segment : id.getSegments()) {
            String type = segment.getType();
            String value = segment.getValue();
            if (type.equals("engine")) continue;
            boolean isInner = !key.isEmpty() && value.startsWith(key + "$"); // as jqwik has a class in a class
            if (CLASSES.contains(type) && isInner) key.replace(0, key.length(), value);
            else if (CLASSES.contains(type))
                key.append(key.isEmpty() ? "" : "/").append(value);
            else if (type.equals("group") && value.startsWith(key + "$"))
                key.replace(0, key.length(), value); // jqwik's
            else if (NESTED.contains(type)) key.append('$').append(value);
            else if (METHODS.contains(type)) key.append('.').append(value);
            else if (type.equals("test") && isOld(id)) old(value, key);
            else if (type.equals("iteration")) key.append('#').append(fromOne(value));
            else if (value.startsWith("#")) key.append(value); // an invocation of a template, or a dynamic test
            else key.append(key.isEmpty() ? "" : "/").append(value);
        }
        return key.isEmpty() ? id.toString() : key.toString();
    }

    /** Spock counts from 0, and everybody else from 1. */
    private static String fromOne(String number) {
        return number.matches("\\d{1,9}") ? String.valueOf(Integer.parseInt(number) + 1) : number;
    }

    private static boolean isOld(UniqueId id) {
        return id.getSegments().stream().anyMatch(segment -> segment.getType().equals("runner"));
    }

    /** {@code swaps[2]} of {@code swaps[2](dev.orto.RotaTest)}, as JUnit 4 describes it; a row alone says nothing new. */
    private static void old(String value, StringBuilder key) {
        int type = value.lastIndexOf('(');
        if (type > 0) key.append('.').append(value, 0, type);
        else if (!value.startsWith("[")) key.append(key.isEmpty() ? "" : "/").append(value);
    }
}
