package dev.verbale.contract;

import com.networknt.schema.Error;
import java.util.List;
import java.util.function.Function;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Asks the validator, and says what it found in our words. */
final class Violations {

    private static final JsonMapper JSON = new JsonMapper();

    private Violations() {}

    static List<Violation> in(String json, Function<String, List<Error>> validation) {
        try {
            JSON.readTree(json);
        } catch (JacksonException broken) {
            return List.of(new Violation("", "not JSON: " + broken.getOriginalMessage()));
        }
        return validation.apply(json).stream()
                .map(Violations::violation)
                .distinct()
                .toList();
    }

    private static Violation violation(Error error) {
        String at = error.getInstanceLocation().toString();
        return new Violation(at.isEmpty() ? "/" : at, String.valueOf(error.getMessage()));
    }
}
