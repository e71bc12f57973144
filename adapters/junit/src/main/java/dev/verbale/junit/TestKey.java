package dev.verbale.junit;

import java.util.Set;
import org.junit.platform.engine.UniqueId;

/**
 * The identity of a test that is the same in every run, on every machine and in every language:
 * {@code dev.orto.RotaTest$Swapping.swaps(int, int)#2}. It is made of the platform's unique id, never of a display name.
 */
final class TestKey {

    private static final Set<String> CLASSES = Set.of("class", "class-template", "runner");
    private static final Set<String> NESTED = Set.of("nested-class", "nested-class-template");
    private static final Set<String> METHODS = Set.of("method", "test-template", "test-factory");

    private TestKey() {}

    static String of(UniqueId id) {
        var key = new StringBuilder();
        for (UniqueId.Segment segment : id.getSegments()) {
            String type = segment.getType();
            String value = segment.getValue();
            if (type.equals("engine")) continue;
            if (CLASSES.contains(type)) key.append(key.isEmpty() ? "" : "/").append(value);
            else if (NESTED.contains(type)) key.append('$').append(value);
            else if (METHODS.contains(type)) key.append('.').append(value);
            else if (value.startsWith("#")) key.append(value); // an invocation of a template, or a dynamic test
            else key.append(key.isEmpty() ? "" : "/").append(value);
        }
        return key.isEmpty() ? id.toString() : key.toString();
    }
}
