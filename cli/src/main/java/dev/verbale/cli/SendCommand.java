package dev.verbale.cli;

import dev.verbale.ci.CiSystem;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.RunReader;
import dev.verbale.sending.HubRefused;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.URI;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A run to the hub of a team. */
@Command(
        name = "send",
        description = {
            "Sends a run to a hub, also while it goes.",
            "What the hub has already is not sent again. What several machines send under one name of run is one run there. The token, of the role send, is in VERBALE_HUB_TOKEN."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale hub send --hub https://runs.orto.example --project orto",
            "  verbale hub send --next --name build-812   # from first test to last"
        })
final class SendCommand implements Callable<Integer> {

    /** This process does nothing else. */
    private static final int AT_ONCE = 8;

    @Mixin
    private final RunArgument run = new RunArgument();

    @Mixin
    private final HubArguments hub = new HubArguments();

    @Option(
            names = "--name",
            paramLabel = "NAME",
            description = {"What the run is called there", "Left out: as the build of the CI system, or as its folder."
            })
    private @Nullable String name;

    @Option(
            names = "--follow",
            description = {"Sends while it goes, until its JVMs have ended", "Or until Ctrl-C."})
    private boolean follow;

    @Option(names = "--next", description = "Waits for a run that is not there yet, follows it")
    private boolean isNext;

    @Option(
            names = "--silence",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = {
                "Over when closed and silent for so long (${DEFAULT-VALUE})",
                "Following ends when all journals are closed and nothing came for so long: another JVM may begin."
            })
    private int silence;

    @Option(
            names = "--patience",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = "How long a hub that is away is tried (${DEFAULT-VALUE})")
    private int patience;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (patience < 1)
            throw new ParameterException(spec.commandLine(), "--patience takes seconds from 1, not " + patience);
        if (silence < 0) throw new ParameterException(spec.commandLine(), "--silence takes 0 or more");
        SendOptions options = options();
        RunFolder folder = isNext ? run.next(spec.commandLine().getErr()) : RunReader.find(run.path());
        SentRun sent = sent(new RunSender(folder, options), folder);
        PrintWriter out = spec.commandLine().getOut();
        var text = new TerminalText(Ansi.AUTO);
        String at = sent.page().toString();
        for (String one : sent.unsent())
            spec.commandLine().getErr().println("Not there as it is here: " + TerminalText.printable(one));
        out.println(sent.files() + (sent.files() == 1 ? " file" : " files") + " of " + folder.name() + " at "
                + text.link(at, at));
        return sent.isWhole() ? ExitCodes.DONE : ExitCodes.NOT_WRITTEN;
    }

    private SentRun sent(RunSender sender, RunFolder folder) throws InterruptedException, FailureMessages.NotWritten {
        try {
            if (!follow && !isNext) return sender.send();
            var isOver = new AtomicBoolean();
            var isSent = new CountDownLatch(1);
            Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                isOver.set(true);
                try {
                    if (!isSent.await(patience, TimeUnit.SECONDS)) isOver.set(true);
                } catch (InterruptedException hurried) {
                    Thread.currentThread().interrupt();
                }
            }));
            try {
                return sender.follow(Duration.ofSeconds(silence), isOver::get);
            } finally {
                isSent.countDown();
            }
        } catch (IllegalArgumentException unusable) {
            throw new ParameterException(spec.commandLine(), unusable.getMessage() + ". Name it with --name", unusable);
        } catch (HubRefused refused) {
            throw new FailureMessages.NotWritten("the run " + folder.name() + " was not sent", refused);
        } catch (IOException refused) {
            throw new FailureMessages.NotWritten(
                    "the run " + folder.name() + " was not sent as a whole; 'verbale hub send' goes on where it ended",
                    refused);
        }
    }

    private SendOptions options() {
        try {
            URI address = hub.address(spec);
            String called =
                    name != null ? name : CiSystem.buildOf(System.getenv()).orElse(null);
            return new SendOptions(address, hub.project(spec), called, hub.token(spec), Duration.ofSeconds(patience))
                    .withAtOnce(AT_ONCE);
        } catch (IllegalArgumentException refused) {
            throw new ParameterException(spec.commandLine(), String.valueOf(refused.getMessage()), refused);
        }
    }
}
