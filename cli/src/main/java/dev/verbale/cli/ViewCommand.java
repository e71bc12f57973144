package dev.verbale.cli;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.report.PageOptions;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.rules.yaml.YamlFormatException;
import dev.verbale.viewer.Viewer;
import dev.verbale.viewer.ViewerOptions;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Serves a folder of runs to browsers on this machine. */
@Command(
        name = "view",
        description = {
            "Shows a folder of runs in a browser: a list, each run's page, and runs that go while they go. It ends with Ctrl-C.",
            "A small server on this machine, which only reads what is in the folder."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale view   # target/verbale, on a free port", "  verbale view build/runs --port 8400"})
final class ViewCommand implements Callable<Integer> {

    private static final String TOKEN = "VERBALE_VIEWER_TOKEN";

    @Parameters(arity = "0..1", paramLabel = "FOLDER", description = "Runs, or a project; left out, target/verbale")
    private @Nullable Path folder;

    @Option(
            names = "--port",
            paramLabel = "N",
            defaultValue = "0",
            description = "Where it listens; left out, a port that is free")
    private int port;

    @Option(
            names = "--address",
            paramLabel = "ADDRESS",
            defaultValue = "127.0.0.1",
            description = {
                "Who can reach it; left out, this machine alone",
                "Any other than ${DEFAULT-VALUE} needs a token, in the variable VERBALE_VIEWER_TOKEN, of 12 characters or more."
            })
    private String address = "";

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Mixin
    private final PageLookOption look = new PageLookOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (port < 0 || port > 65_535) throw wrong("--port takes a number up to 65535, not " + port);
        // The JDK's server waits for ever for a request that comes a byte a minute, unless it is told before it starts.
        System.setProperty("sun.net.httpserver.maxReqTime", "30");
        Viewer viewer = started();
        var over = new CountDownLatch(1);
        Runtime.getRuntime().addShutdownHook(new Thread(() -> {
            viewer.close();
            over.countDown();
        }));
        PrintWriter out = spec.commandLine().getOut();
        var text = new TerminalText(Ansi.AUTO);
        String at = viewer.address().toString();
        out.println("Runs of " + TerminalText.printable(root().toString()) + ": " + text.link(at, at));
        out.println(text.dim("Ends with Ctrl-C."));
        out.flush();
        over.await();
        return ExitCodes.DONE;
    }

    private Viewer started() throws IOException, YamlFormatException {
        try {
            PageOptions options = look.options()
                    .withCode(sources.code(spec))
                    .withRules(rules.read().triage());
            String token = System.getenv(TOKEN);
            return Viewer.start(new ViewerOptions(
                    root(),
                    new InetSocketAddress(InetAddress.getByName(address), port),
                    token == null || token.isEmpty() ? null : token,
                    pages(options)));
        } catch (UnknownHostException unknown) {
            throw wrong("--address: there is no address '" + address + "'");
        } catch (IllegalArgumentException refused) {
            throw wrong(refused.getMessage() + ", in the variable " + TOKEN);
        } catch (BindException taken) {
            throw wrong("The viewer cannot listen at " + address + ":" + port + " (" + taken.getMessage()
                    + "). Name another --port, or none");
        }
    }

    private ViewerOptions.Pages pages(PageOptions options) {
        PrintWriter err = spec.commandLine().getErr();
        return new ViewerOptions.Pages() {
            @Override
            public PageOptions options(RunFolder run) throws IOException {
                return options.withEarlier(history.earlier(run, err));
            }

            @Override
            public Expectation expected(RunFolder run) throws IOException {
                return history.read(err).expected();
            }
        };
    }

    /** Runs, or a project in which they are where a build puts them. */
    private Path root() {
        if (folder == null) return RunArgument.root();
        Path inProject = folder.resolve(ResultsRoot.DEFAULT);
        return Files.isDirectory(inProject) ? inProject : folder;
    }

    private ParameterException wrong(@Nullable String why) {
        return new ParameterException(spec.commandLine(), String.valueOf(why));
    }
}
