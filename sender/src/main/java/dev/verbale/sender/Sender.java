package dev.verbale.sender;

import dev.verbale.ci.CiSystem;
import dev.verbale.folder.LastOfRun;
import dev.verbale.folder.RunFolder;
import dev.verbale.sending.SendOptions;
import dev.verbale.spi.Context;
import dev.verbale.spi.RunListener;
import dev.verbale.spi.Setting;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * Sends a run to a hub from a quiet thread of a JVM that records it: of several JVMs one at a time, and the last one says that this was
 * all. No test waits for it. Where a build plugin sends, it does nothing.
 *
 * @since 0.2.0
 */
public final class Sender implements RunListener {

    /** In the run's folder, as long as somebody sends. */
    private static final String LOCK = "senders.lock";

    private static final Duration PATIENCE = Duration.ofSeconds(5);

    private @Nullable LastOfRun last;
    private @Nullable FollowedRun followed;

    /** As {@link java.util.ServiceLoader} makes it. */
    public Sender() {}

    @Override
    public void opened(Context context) {
        Path folder = context.folder();
        String hub = set(context, SenderAdapter.HUB);
        boolean isElsewhere = System.getProperty("verbale.build.page") != null;
        if (folder == null || isElsewhere || hub == null) return;
        SendOptions options;
        try {
            options = options(context, hub);
        } catch (IllegalArgumentException wrong) {
            System.out.println("Verbale: this run is not sent: " + wrong.getMessage());
            return;
        }
        last = LastOfRun.among(folder, LOCK);
        if (last == null) {
            System.out.println(
                    "Verbale: this run is not sent while it goes, as its folder knows no locks. 'verbale hub send' sends it afterwards.");
            return;
        }
        followed = new FollowedRun(new RunFolder(folder), options, last);
    }

    /** Null where it is not set, or to what the documentation calls that. */
    private static @Nullable String set(Context context, Setting setting) {
        String value = context.setting(setting);
        return value.isEmpty() || value.equals(setting.shownFallback()) ? null : value;
    }

    /** @throws IllegalArgumentException where something of it is missing or cannot be meant */
    private static SendOptions options(Context context, String hub) {
        String project = set(context, SenderAdapter.PROJECT);
        String run = set(context, SenderAdapter.RUN);
        String token = System.getenv("VERBALE_HUB_TOKEN"); // nowhere else: what is a property stands in logs and files
        if (project == null || token == null || token.isBlank())
            throw new IllegalArgumentException(
                    "verbale.hub.project has to say whose runs they are, and the variable VERBALE_HUB_TOKEN has to have a token of "
                            + hub + ".");
        return new SendOptions(
                URI.create(hub),
                project,
                run == null ? CiSystem.buildOf(System.getenv()).orElse(null) : run,
                token.strip(),
                PATIENCE);
    }

    @Override
    public void ended(Context context) {
        LastOfRun mine = last;
        FollowedRun run = followed;
        if (mine == null || run == null) return;
        try {
            run.stop();
            mine.leave(() -> run.sendRest().ifPresent(System.out::println));
        } catch (IOException unreleased) {
            throw new UncheckedIOException(unreleased);
        }
    }
}
