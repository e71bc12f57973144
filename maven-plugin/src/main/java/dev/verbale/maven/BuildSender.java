package dev.verbale.maven;

import dev.verbale.ci.CiSystem;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.sending.HubRefused;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.apache.maven.execution.MavenSession;
import org.jspecify.annotations.Nullable;

/**
 * Sends the run of a build to a hub while it goes, on one quiet thread of the build's own JVM, which is none that runs tests unless nothing is
 * forked. How the build ends is not changed by it.
 */
final class BuildSender {

    /** How long the end of a build waits for a hub that is away. */
    private static final Duration PATIENCE = Duration.ofSeconds(5);

    /** And for one that takes what is sent. */
    private static final Duration LONGEST_END = Duration.ofMinutes(2);

    private static final long LOOKED_FOR_EVERY = TimeUnit.MILLISECONDS.toNanos(200);
    private static final long TRIED_AGAIN_AFTER = TimeUnit.SECONDS.toNanos(5);

    /** A build starts one JVM after another: only its end is the run's. */
    private static final Duration NEVER_BY_ITSELF = Duration.ofDays(1);

    private static final String HUB = "verbale.hub";

    private final MavenSession session;
    private final SendOptions options;
    private final Thread thread = new Thread(this::send, "verbale-sender");
    private final AtomicBoolean isOver = new AtomicBoolean();

    private volatile @Nullable SentRun sent;
    private volatile @Nullable Exception failed;

    private BuildSender(MavenSession session, SendOptions options) {
        this.session = session;
        this.options = options;
    }

    /** Begins, where a hub is set; empty where none is, or where what is set cannot be meant. */
    static Optional<BuildSender> start(MavenSession session, Consumer<String> warning) {
        try {
            // Not by the environment: that is also set where somebody only asks a hub.
            String hub = BuildRun.setting(session, HUB, "");
            if (hub == null || hub.equals("off")) return Optional.empty();
            SendOptions options = options(session)
                    .orElseThrow(() -> new IllegalArgumentException(
                            "verbale.hub.project has to say whose runs they are, and the variable VERBALE_HUB_TOKEN has to have a"
                                    + " token of " + hub + "."));
            var sender = new BuildSender(session, options);
            sender.thread.setDaemon(true);
            sender.thread.setPriority(Thread.MIN_PRIORITY);
            sender.thread.start();
            return Optional.of(sender);
        } catch (IllegalArgumentException wrong) {
            warning.accept("Verbale: this run is not sent: " + wrong.getMessage());
            return Optional.empty();
        }
    }

    /**
     * Which hub is set, for whoever only asks it; empty where not all is said that it takes.
     *
     * @throws IllegalArgumentException where it cannot be meant
     */
    static Optional<SendOptions> options(MavenSession session) {
        String hub = BuildRun.setting(session, HUB, "VERBALE_HUB");
        String project = BuildRun.setting(session, "verbale.hub.project", "VERBALE_HUB_PROJECT");
        String token = System.getenv("VERBALE_HUB_TOKEN"); // nowhere else: what is a property stands in logs and files
        if (hub == null || hub.equals("off") || project == null || token == null || token.isBlank())
            return Optional.empty();
        String run = BuildRun.setting(session, "verbale.hub.run", "VERBALE_HUB_RUN");
        return Optional.of(new SendOptions(
                URI.create(hub),
                project,
                run != null ? run : CiSystem.buildOf(System.getenv()).orElse(null),
                token.strip(),
                PATIENCE));
    }

    private void send() {
        RunSender sender = null;
        boolean isLast;
        do {
            isLast = isOver.get(); // as it was before: what came meanwhile is sent too
            try {
                if (sender == null) sender = found();
                if (sender != null) sent = sender.follow(NEVER_BY_ITSELF, isOver::get);
                failed = null;
            } catch (InterruptedException late) {
                return;
            } catch (HubRefused refused) {
                failed = refused;
                return;
            } catch (IOException | RuntimeException away) {
                failed = away;
                sender = null; // the next one asks what is there
                if (!isOver.get()) LockSupport.parkNanos(TRIED_AGAIN_AFTER);
            }
        } while (!isLast);
    }

    /** Of the run, as soon as there is one; null where the build is over and has none. */
    private @Nullable RunSender found() throws IOException {
        while (true) {
            boolean isLast = isOver.get();
            Optional<RunFolder> run = BuildRun.find(session);
            if (run.isPresent()) return new RunSender(run.get(), options);
            if (isLast) return null;
            LockSupport.parkNanos(LOOKED_FOR_EVERY);
        }
    }

    /** Sends the rest, and says where the run is, or what of it is not there. */
    void end(Consumer<String> say, Consumer<String> warning) {
        isOver.set(true);
        LockSupport.unpark(thread);
        try {
            thread.join(LONGEST_END.toMillis());
            if (thread.isAlive()) {
                thread.interrupt();
                warning.accept("Verbale: the hub is too slow; the run was not sent as a whole." + rest());
                return;
            }
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
            return;
        }
        SentRun there = sent;
        Exception why = failed;
        if (why != null) warning.accept("Verbale: the run was not sent as a whole: " + why.getMessage() + "." + rest());
        else if (there != null) {
            say.accept("Verbale: sent to " + there.page());
            if (!there.isWhole())
                warning.accept("Verbale: not there as it is here: " + String.join("; ", there.unsent()) + "." + rest());
            if (ranHere()) warning.accept("Verbale: tests ran in the build's own JVM, whose end comes later." + rest());
        }
    }

    private static String rest() {
        return " 'verbale hub send' sends what is missing.";
    }

    private boolean ranHere() {
        long own = ProcessHandle.current().pid();
        try {
            Optional<RunFolder> run = BuildRun.find(session);
            if (run.isEmpty()) return false;
            Run read = RunReader.read(run.get().path());
            return read.workers().stream().anyMatch(worker -> worker.pid() == own && !worker.ended());
        } catch (IOException unreadable) {
            return false;
        }
    }
}
