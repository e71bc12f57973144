package dev.verbale.hub;

import java.util.Map;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/**
 * What somebody asks of the hub.
 *
 * @param access who it is
 * @param names what the address has where the route has a name
 */
record Asked(Request request, Response response, Access access, Map<String, String> names) {

    Asked {
        names = Map.copyOf(names);
    }

    /** What the address has there. */
    String name(String name) {
        String found = names.get(name);
        if (found == null) throw new IllegalArgumentException(name);
        return found;
    }

    String project() {
        return name(Route.PROJECT);
    }
}
