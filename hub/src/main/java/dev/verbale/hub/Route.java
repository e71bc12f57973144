package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One thing that is asked of the hub.
 *
 * @param method such as {@code GET}, which answers {@code HEAD} too
 * @param path its parts; one in braces is a name that the address has there
 * @param needed who may ask it
 */
record Route(String method, List<String> path, Needed needed, Answer answer) {

    static final String PROJECT = "project";

    /** What one has to be allowed. */
    enum Needed {
        /** It is enough to be known; what is asked for may say more. */
        NOTHING,
        /** Any role in the project. */
        ANY_ROLE,
        LABEL,
        SEND,
        ADMINISTER
    }

    @FunctionalInterface
    interface Answer {
        void to(Asked asked) throws IOException, Refused;
    }

    /** @param path such as {@code projects/{project}/rules} */
    static Route of(String method, String path, Needed needed, Answer answer) {
        return new Route(method, List.of(path.split("/")), needed, answer);
    }

    /** The names in that address; empty where it is another route's. */
    Optional<Map<String, String>> names(List<String> address) {
        if (address.size() != path.size()) return Optional.empty();
        Map<String, String> names = new HashMap<>();
        for (int i = 0; i < path.size(); i++) {
            String part = path.get(i);
            if (part.startsWith("{")) names.put(part.substring(1, part.length() - 1), address.get(i));
            else if (!part.equals(address.get(i))) return Optional.empty();
        }
        return Optional.of(names);
    }

    boolean isAskedBy(String asking) {
        return method.equals(asking) || (method.equals("GET") && asking.equals("HEAD"));
    }
}
