package dev.verbale.cli;

import dev.verbale.hub.Hub;
import dev.verbale.hub.HubOptions;
import dev.verbale.report.PageOptions;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A hub of this process. What else the command line does needs none of its libraries: only here are they named. */
final class RunningHub {

    private final Hub hub;

    private RunningHub(Hub hub) {
        this.hub = hub;
    }

    /**
     * @param database address, user, password; nothing for the embedded one
     * @param administer a token that may do everything; empty for none
     * @param proxies from where a proxy names people, with that header; none for nobody
     */
    static RunningHub start(
            InetSocketAddress address,
            Path folder,
            Path objects,
            List<String> database,
            String administer,
            Set<InetAddress> proxies,
            String personHeader,
            PageOptions pages)
            throws IOException {
        return new RunningHub(Hub.start(new HubOptions(
                address,
                folder,
                objects,
                database.isEmpty() ? null : new HubOptions.Database(database.get(0), database.get(1), database.get(2)),
                administer.isEmpty() ? null : administer,
                proxies.isEmpty() ? null : new HubOptions.Proxy(proxies, personHeader),
                run -> pages)));
    }

    URI address() {
        return hub.address();
    }

    @Nullable
    String firstToken() {
        return hub.firstToken();
    }

    void close() {
        hub.close();
    }
}
