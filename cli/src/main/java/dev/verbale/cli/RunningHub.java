package dev.verbale.cli;

import dev.verbale.hub.Hub;
import dev.verbale.hub.HubOptions;
import dev.verbale.lake.Lake;
import dev.verbale.report.PageOptions;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Path;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** A hub of this process. What else the command line does needs none of its libraries: only here are they named. */
final class RunningHub {

    private final Hub hub;
    private final @Nullable NamedLake lake;
    private final @Nullable HourlyLake hourly;

    private RunningHub(Hub hub, @Nullable NamedLake lake) {
        this.hub = hub;
        this.lake = lake;
        this.hourly = lake == null ? null : new HourlyLake(hub, lake.lake());
    }

    /**
     * What is said of it, in words.
     *
     * @param objects a folder or a bucket; null for in its folder
     * @param lake where what is remembered goes each hour, see {@link NamedLake}; null for nowhere
     * @param database of PostgreSQL; null for the embedded one
     * @param proxies from where a proxy names people, with that header; none for nobody
     * @param issuer a provider of OpenID Connect; null for none
     * @param keystore with its certificate; null for none
     * @param variable what the environment says; empty for nothing
     */
    record Settings(
            InetSocketAddress address,
            Path folder,
            @Nullable String objects,
            @Nullable String lake,
            @Nullable String database,
            Set<InetAddress> proxies,
            String personHeader,
            @Nullable URI issuer,
            String claim,
            @Nullable Path keystore,
            @Nullable URI publicAddress,
            UnaryOperator<String> variable,
            PageOptions pages) {}

    static RunningHub start(Settings settings) throws IOException {
        UnaryOperator<String> variable = settings.variable();
        HubOptions options = HubOptions.of(settings.address(), settings.folder())
                .withPublicAddress(settings.publicAddress())
                .withPages(run -> settings.pages());
        if (settings.objects() != null) options = options.withStorage(HubOptions.Storage.of(settings.objects()));
        if (settings.database() != null)
            options = options.withDatabase(new HubOptions.Database(
                    settings.database(),
                    variable.apply(HubCommand.DATABASE_USER),
                    variable.apply(HubCommand.DATABASE_PASSWORD)));
        String administer = variable.apply(HubArguments.TOKEN);
        if (!administer.isEmpty()) options = options.withAdminister(administer);
        if (!settings.proxies().isEmpty())
            options = options.withProxy(new HubOptions.Proxy(settings.proxies(), settings.personHeader()));
        if (settings.issuer() != null)
            options = options.withOpenId(new HubOptions.OpenId(
                    settings.issuer(),
                    variable.apply(HubCommand.OPENID_CLIENT),
                    variable.apply(HubCommand.OPENID_SECRET),
                    settings.claim()));
        if (settings.keystore() != null)
            options = options.withCertificate(
                    new HubOptions.Certificate(settings.keystore(), variable.apply(HubCommand.KEYSTORE_PASSWORD)));
        String into = settings.lake();
        if (into == null) return new RunningHub(Hub.start(options), null);
        Lake.checkEngine();
        NamedLake lake = NamedLake.of(into, settings.folder());
        try {
            return new RunningHub(Hub.start(options), lake);
        } catch (IOException | RuntimeException refused) {
            lake.close();
            throw refused;
        }
    }

    URI address() {
        return hub.address();
    }

    @Nullable
    String firstToken() {
        return hub.firstToken();
    }

    void close() {
        if (hourly != null) hourly.close();
        if (lake != null) lake.close();
        hub.close();
    }
}
