package dev.verbale.hub;

import dev.verbale.viewer.ViewerOptions;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Where a hub listens, and where it keeps what it is sent.
 *
 * @param address where it listens; port 0 for one that is free
 * @param folder of this hub's own: copies of runs to read, pages, and the embedded database where there is no other
 * @param objects the folder of files of runs that are over; several hubs with one database share it
 * @param database of PostgreSQL, where several hubs may share one; null for the embedded one
 * @param administer a token that may do everything, at least 20 characters; null for one that the hub makes when it begins with an empty
 *     database
 * @param proxy which names people; null for none
 * @param pages what a page is made of beside its run
 * @since 0.2.0
 */
public record HubOptions(
        InetSocketAddress address,
        Path folder,
        Path objects,
        @Nullable Database database,
        @Nullable String administer,
        @Nullable Proxy proxy,
        ViewerOptions.Pages pages) {

    private static final int SHORTEST_TOKEN = 20;

    /** @throws IllegalArgumentException where the address or the database is none, or the token can be guessed */
    public HubOptions {
        if (address.isUnresolved())
            throw new IllegalArgumentException("there is no address " + address.getHostString());
        if (administer != null && administer.length() < SHORTEST_TOKEN)
            throw new IllegalArgumentException("a token has " + SHORTEST_TOKEN + " characters at the least");
    }

    /**
     * A proxy that asks people who they are and says so with each request. It has to take that header away from what they send.
     *
     * @param addresses from where it asks the hub; from elsewhere the header counts for nothing
     * @param header such as {@code X-Forwarded-User}
     */
    public record Proxy(Set<InetAddress> addresses, String header) {

        /** @throws IllegalArgumentException where the header cannot be one, or anybody could send it */
        public Proxy {
            addresses = Set.copyOf(addresses);
            if (addresses.isEmpty())
                throw new IllegalArgumentException("without the proxy's address anybody could say who they are");
            if (!header.matches("[A-Za-z0-9-]{1,100}"))
                throw new IllegalArgumentException("'" + header + "' is no header, such as X-Forwarded-User");
        }
    }

    /**
     * A database of PostgreSQL.
     *
     * @param url such as {@code jdbc:postgresql://host/name}
     */
    public record Database(String url, String user, String password) {

        /** @throws IllegalArgumentException where it is of another kind */
        public Database {
            if (!url.startsWith("jdbc:postgresql:"))
                throw new IllegalArgumentException(
                        "'" + url + "' is no address of a PostgreSQL database, such as jdbc:postgresql://host/name");
        }

        @Override
        public String toString() {
            return url + " as " + user; // never the password
        }
    }
}
