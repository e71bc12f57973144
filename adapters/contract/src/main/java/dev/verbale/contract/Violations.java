package dev.verbale.contract;

import com.networknt.schema.Error;
import dev.verbale.spi.Context;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asks the validator, and says what it found in our words. */
final class Violations {

    private static final int LONGEST_VALUE = 80;

    private static final JsonMapper JSON = new JsonMapper();

    private Violations() {}

    static List<Violation> in(String json, Function<String, List<Error>> validation) {
        JsonNode tree;
        try {
            tree = JSON.readTree(json);
        } catch (JacksonException broken) {
            return List.of(new Violation("", "not JSON: " + broken.getOriginalMessage()));
        }
        return validation.apply(json).stream()
                .map(error -> violation(error, tree))
                .distinct()
                .toList();
    }

    private static Violation violation(Error error, JsonNode tree) {
        String at = error.getInstanceLocation().toString();
        String what = String.valueOf(error.getMessage());
        return new Violation(at.isEmpty() ? "/" : at, what + found(at, tree, what));
    }

    /** The value that is there; nothing where it is a secret's, has parts of its own, or was said. */
    private static String found(String at, JsonNode tree, String what) {
        JsonNode value = value(at, tree);
        if (value == null || !value.isValueNode()) return "";
        Context context = Context.current();
        for (String name : at.split("/")) if (context.isSecretName(name)) return "";
        String text = context.shortened(value.toString(), LONGEST_VALUE);
        return what.contains(text) ? "" : ": " + text;
    }

    private static @Nullable JsonNode value(String at, JsonNode tree) {
        try {
            return tree.at(at);
        } catch (IllegalArgumentException odd) { // the validator's own way of naming a part
            return null;
        }
    }
}
