package dev.verbale.restassured;

import java.lang.reflect.Array;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** What an assertion on a response is called: {@code statusCode(is(201))} is <i>status code: is &lt;201&gt;</i>. */
final class CheckNames {

    private CheckNames() {}

    static String of(String method, Object @Nullable [] arguments) {
        try {
            return described(method, arguments);
        } catch (RuntimeException odd) { // a matcher of the suite's own may throw when it is asked for its text
            return method;
        }
    }

    /** With a colon before a value, which is how the masking of secrets by their names knows one. */
    private static String described(String method, Object @Nullable [] arguments) {
        String words = method.replaceAll("(?<=[a-z])(?=[A-Z])", " ").toLowerCase(Locale.ROOT);
        List<Object> flat = new ArrayList<>();
        if (arguments != null) for (Object argument : arguments) flatten(argument, flat);
        if (words.startsWith("cookie")) // whatever a cookie is called, its value is nobody's business
        return flat.isEmpty() ? words : words + " " + flat.get(0);
        var name = new StringBuilder(words);
        boolean named = flat.size() > 1;
        for (int i = 0; i < flat.size(); i++) {
            boolean value = !named || i % 2 == 1;
            name.append(value ? ": " : i == 0 ? " " : ", ").append(flat.get(i));
        }
        return name.toString();
    }

    private static void flatten(@Nullable Object argument, List<Object> flat) {
        if (argument == null) flat.add("null");
        else if (argument instanceof List<?> list) list.forEach(one -> flatten(one, flat));
        else if (!argument.getClass().isArray()) flat.add(argument);
        else for (int i = 0; i < Array.getLength(argument); i++) flatten(Array.get(argument, i), flat);
    }
}
