package dev.verbale.hub;

import dev.verbale.report.PageOptions;
import dev.verbale.viewer.ViewerOptions;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Path;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Where a hub listens, where it keeps what it is sent, and how people are known to it. It is not changed: each method gives another one.
 *
 * @param address where it listens; port 0 for one that is free
 * @param folder of this hub's own: copies of runs to read, pages, and the embedded database where there is no other
 * @param storage of files of runs that are over; several hubs with one database share it
 * @param database of PostgreSQL, where several hubs may share one; null for the embedded one
 * @param administer a token that may do everything, at least 20 characters; null for one that the hub makes when it begins with an empty
 *     database
 * @param proxy which names people; null for none
 * @param openId a provider that people are known to; null for none
 * @param certificate with which it listens by HTTPS itself; null for HTTP
 * @param publicAddress where people find it, with a path that a proxy has it behind; null for where it listens
 * @param pages what a page is made of beside its run
 * @since 0.2.0
 */
public record HubOptions(
        InetSocketAddress address,
        Path folder,
        Storage storage,
        @Nullable Database database,
        @Nullable String administer,
        @Nullable Proxy proxy,
        @Nullable OpenId openId,
        @Nullable Certificate certificate,
        @Nullable URI publicAddress,
        ViewerOptions.Pages pages) {

    private static final int SHORTEST_TOKEN = 20;

    /** @throws IllegalArgumentException where the address or the database is none, or the token can be guessed */
    public HubOptions {
        if (address.isUnresolved())
            throw new IllegalArgumentException("there is no address " + address.getHostString());
        if (administer != null && administer.length() < SHORTEST_TOKEN)
            throw new IllegalArgumentException("a token has " + SHORTEST_TOKEN + " characters at the least");
        if (publicAddress != null) publicAddress = server(publicAddress, "https://runs.orto.example/");
    }

    /** All in {@code folder}. */
    public static HubOptions of(InetSocketAddress address, Path folder) {
        return new HubOptions(
                address,
                folder,
                new Storage.Folder(folder.resolve("objects")),
                null,
                null,
                null,
                null,
                null,
                null,
                run -> PageOptions.PLAIN);
    }

    public HubOptions withStorage(Storage other) {
        return new HubOptions(
                address, folder, other, database, administer, proxy, openId, certificate, publicAddress, pages);
    }

    /** @param other null for the embedded one */
    public HubOptions withDatabase(@Nullable Database other) {
        return new HubOptions(
                address, folder, storage, other, administer, proxy, openId, certificate, publicAddress, pages);
    }

    /** @throws IllegalArgumentException where the token can be guessed */
    public HubOptions withAdminister(@Nullable String token) {
        return new HubOptions(
                address, folder, storage, database, token, proxy, openId, certificate, publicAddress, pages);
    }

    public HubOptions withProxy(@Nullable Proxy other) {
        return new HubOptions(
                address, folder, storage, database, administer, other, openId, certificate, publicAddress, pages);
    }

    public HubOptions withOpenId(@Nullable OpenId other) {
        return new HubOptions(
                address, folder, storage, database, administer, proxy, other, certificate, publicAddress, pages);
    }

    public HubOptions withCertificate(@Nullable Certificate other) {
        return new HubOptions(
                address, folder, storage, database, administer, proxy, openId, other, publicAddress, pages);
    }

    /** @throws IllegalArgumentException where it is no address of a server */
    public HubOptions withPublicAddress(@Nullable URI other) {
        return new HubOptions(address, folder, storage, database, administer, proxy, openId, certificate, other, pages);
    }

    public HubOptions withPages(ViewerOptions.Pages other) {
        return new HubOptions(
                address, folder, storage, database, administer, proxy, openId, certificate, publicAddress, other);
    }

    /** As a folder, to which other addresses are resolved. */
    private static URI server(URI address, String example) {
        boolean isServer = address.getHost() != null
                && ("http".equals(address.getScheme()) || "https".equals(address.getScheme()))
                && address.getRawQuery() == null
                && address.getRawUserInfo() == null;
        if (!isServer)
            throw new IllegalArgumentException("'" + address + "' is no address of a server, such as " + example);
        return address.toString().endsWith("/") ? address : URI.create(address + "/");
    }

    /** Where files of runs are kept that are over. */
    public sealed interface Storage {

        /** A folder; several hubs may see it. */
        record Folder(Path path) implements Storage {}

        /**
         * A bucket of a storage that speaks S3. Where it is and as whom it is asked is what the AWS SDK finds: {@code AWS_ENDPOINT_URL_S3},
         * {@code AWS_REGION}, {@code AWS_ACCESS_KEY_ID}, {@code AWS_SECRET_ACCESS_KEY}, a profile, or the role of the machine.
         *
         * @param prefix before the name of each object: empty, or with a {@code /} at its end
         */
        record Bucket(String name, String prefix) implements Storage {

            /** @throws IllegalArgumentException where it cannot be the name of a bucket */
            public Bucket {
                if (!name.matches("[a-z0-9][a-z0-9.-]{1,61}[a-z0-9]"))
                    throw new IllegalArgumentException("'" + name + "' cannot be the name of a bucket");
                if (!prefix.isEmpty() && !prefix.endsWith("/")) prefix += "/";
            }
        }

        /**
         * As it is written: {@code s3://BUCKET/PREFIX}, or the path of a folder.
         *
         * @throws IllegalArgumentException where it is of another kind, or cannot be the name of a bucket
         */
        static Storage of(String text) {
            if (text.startsWith("s3://")) {
                String[] parts = text.substring("s3://".length()).split("/", 2);
                return new Bucket(parts[0], parts.length == 1 ? "" : parts[1]);
            }
            if (text.matches("[A-Za-z][A-Za-z0-9+.-]+://.*"))
                throw new IllegalArgumentException(
                        "'" + text + "' is no storage: name a folder, or s3://BUCKET/PREFIX");
            return new Folder(Path.of(text));
        }
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
     * A provider of OpenID Connect that people are known to. It sends them back to {@code enter/openid/back} of the public address.
     *
     * @param issuer where it is, as its own configuration says
     * @param client as which the hub is known to it
     * @param secret of that client
     * @param claim what is a person's name here: such as {@code email}, which counts only where the provider says that it was verified,
     *     or {@code preferred_username} or {@code sub}
     */
    public record OpenId(URI issuer, String client, String secret, String claim) {

        /** @throws IllegalArgumentException where the issuer is no server, or the client has no name or no secret */
        public OpenId {
            server(issuer, "https://login.orto.example");
            if (client.isBlank() || secret.isBlank())
                throw new IllegalArgumentException("the provider " + issuer + " asks for a client and its secret");
            if (!claim.matches("[A-Za-z0-9_:./-]{1,200}"))
                throw new IllegalArgumentException("'" + claim + "' is no claim, such as email");
        }

        @Override
        public String toString() {
            return issuer + " as " + client; // never the secret
        }
    }

    /**
     * The certificate and key of this server. Where the file changes, the new ones count within a minute.
     *
     * @param keystore of the kind PKCS #12 or JKS
     */
    public record Certificate(Path keystore, String password) {

        @Override
        public String toString() {
            return keystore.toString(); // never the password
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
