package dev.verbale.cli;

import dev.verbale.report.PageOptions;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The server of a team. */
@Command(
        name = "hub",
        description = {
            "The server of a team, which its runs are sent to, also while they go.",
            "It ends with Ctrl-C, and may be killed at any time. Alone it keeps all in its folder; with --database several of them share a PostgreSQL database, and the storage that --objects names."
        },
        subcommands = {SendCommand.class, HubTokenCommand.class, HubPersonCommand.class, HubKeepCommand.class},
        mixinStandardHelpOptions = true,
        footer = {"  verbale hub --folder /var/lib/verbale   # shows the first token, once"})
final class HubCommand implements Callable<Integer> {

    static final String DATABASE_USER = "VERBALE_HUB_DATABASE_USER";
    static final String DATABASE_PASSWORD = "VERBALE_HUB_DATABASE_PASSWORD";
    static final String OPENID_CLIENT = "VERBALE_HUB_OPENID_CLIENT";
    static final String OPENID_SECRET = "VERBALE_HUB_OPENID_SECRET";
    static final String KEYSTORE_PASSWORD = "VERBALE_HUB_KEYSTORE_PASSWORD";

    @Option(
            names = "--folder",
            paramLabel = "FOLDER",
            defaultValue = "verbale-hub",
            description = "What this hub keeps itself (${DEFAULT-VALUE})")
    private Path folder = Path.of("");

    @Option(
            names = "--objects",
            paramLabel = "STORAGE",
            description = {
                "Where files of runs go: a folder, s3://BUCKET/...",
                "Files of runs that are over; with AWS_ENDPOINT_URL_S3 and the like. Left out: in its folder."
            })
    private @Nullable String objects;

    @Option(
            names = "--lake",
            paramLabel = "LAKE",
            description = {
                "Where what is remembered goes each hour",
                "A folder, or s3://BUCKET/PREFIX: Parquet files for other engines, docs/lake.md. Left out: nowhere."
            })
    private @Nullable String lake;

    @Option(
            names = "--database",
            paramLabel = "URL",
            description = {
                "jdbc:postgresql://...; left out, one of its own",
                "Such as jdbc:postgresql://host/name, as whom say VERBALE_HUB_DATABASE_USER and VERBALE_HUB_DATABASE_PASSWORD. Left out: one in its folder."
            })
    private @Nullable String database;

    @Option(
            names = "--port",
            paramLabel = "N",
            defaultValue = "8460",
            description = "Where it listens; 0 for a free one (${DEFAULT-VALUE})")
    private int port;

    @Option(
            names = "--address",
            paramLabel = "ADDRESS",
            defaultValue = "127.0.0.1",
            description = {
                "Who can reach it; left out, this machine alone",
                "${DEFAULT-VALUE} is as behind a proxy that has the certificate."
            })
    private String address = "";

    @Option(
            names = "--public-address",
            paramLabel = "URL",
            description = {"Where people find it, as by a proxy", "Left out: where it listens."})
    private @Nullable URI publicAddress;

    @Option(
            names = "--keystore",
            paramLabel = "FILE",
            description = {
                "Its certificate and key (PKCS #12), for HTTPS",
                "The password is in VERBALE_HUB_KEYSTORE_PASSWORD. Left out: HTTP."
            })
    private @Nullable Path keystore;

    @Option(
            names = "--openid-issuer",
            paramLabel = "URL",
            description = {
                "Who knows the people, by OpenID Connect",
                "VERBALE_HUB_OPENID_CLIENT and VERBALE_HUB_OPENID_SECRET say as whom it is asked."
            })
    private @Nullable URI issuer;

    @Option(
            names = "--openid-claim",
            paramLabel = "NAME",
            defaultValue = "email",
            description = "What people are called by (${DEFAULT-VALUE})")
    private String claim = "";

    @Option(names = "--log-requests", description = "Logs each request too, not warnings alone")
    private boolean logRequests;

    @Option(
            names = "--trusted-proxy",
            paramLabel = "ADDRESS",
            split = ",",
            description = {
                "A proxy that asked people who they are",
                "From where it asks, as by OpenID Connect. Left out: none."
            })
    private List<String> proxies = List.of();

    @Option(
            names = "--person-header",
            paramLabel = "NAME",
            defaultValue = "X-Forwarded-User",
            description = "What it says that with (${DEFAULT-VALUE})")
    private String personHeader = "";

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final PageLookOption look = new PageLookOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (port < 0 || port > 65_535) throw wrong("--port takes a number up to 65535, not " + port);
        HubLog.begin(logRequests);
        RunningHub hub = started();
        var over = new CountDownLatch(1);
        Runtime.getRuntime().addShutdownHook(new Thread(() -> {
            hub.close();
            over.countDown();
        }));
        PrintWriter out = spec.commandLine().getOut();
        out.println("The hub is at " + hub.address());
        if (hub.firstToken() != null)
            out.println("A token that may do everything, shown this once: " + hub.firstToken());
        out.println("Ends with Ctrl-C.");
        out.flush();
        over.await();
        return ExitCodes.DONE;
    }

    private RunningHub started() throws IOException, YamlFormatException, FailureMessages.NotWritten {
        PageOptions options = look.options().withRules(rules.ofFile().triage());
        try {
            return RunningHub.start(new RunningHub.Settings(
                    new InetSocketAddress(InetAddress.getByName(address), port),
                    folder,
                    objects,
                    lake,
                    database,
                    proxies(),
                    personHeader,
                    issuer,
                    claim,
                    keystore,
                    publicAddress,
                    HubCommand::variable,
                    options));
        } catch (UnknownHostException unknown) {
            throw wrong("--address: there is no address '" + address + "'");
        } catch (IllegalArgumentException refused) {
            throw wrong(refused.getMessage());
        } catch (BindException taken) {
            throw wrong("The hub cannot listen at " + address + ":" + port + " (" + taken.getMessage()
                    + "). Name another --port");
        } catch (IOException unusable) {
            throw new FailureMessages.NotWritten("the hub did not start", unusable);
        }
    }

    private Set<InetAddress> proxies() {
        Set<InetAddress> addresses = new HashSet<>();
        for (String proxy : proxies) {
            try {
                addresses.addAll(List.of(InetAddress.getAllByName(proxy)));
            } catch (UnknownHostException unknown) {
                throw wrong("--trusted-proxy: there is no address '" + proxy + "'");
            }
        }
        return addresses;
    }

    private static String variable(String name) {
        String set = System.getenv(name);
        return set == null ? "" : set.strip();
    }

    private ParameterException wrong(@Nullable String why) {
        return new ParameterException(spec.commandLine(), String.valueOf(why));
    }
}
