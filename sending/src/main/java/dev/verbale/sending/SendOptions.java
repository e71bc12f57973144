package dev.verbale.sending;

import java.net.URI;
import java.time.Duration;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Where a run is sent to, and as whose.
 *
 * @param hub its address, such as {@code https://runs.orto.example}, with the path that it is behind
 * @param project whose runs they are there
 * @param run the name that the run has on the hub: what several machines send under one name is one run; null for the folder's
 * @param token with the role {@code send}
 * @param patience how long a hub that is away, slow or full is tried before that is an error
 * @param atOnce so many files are sent side by side, from 1 to 64: one is what a guest in another's process sends
 * @since 0.2.0
 */
public record SendOptions(URI hub, String project, @Nullable String run, String token, Duration patience, int atOnce) {

    private static final int LARGEST_AT_ONCE = 64;

    /** What projects and runs may be called on a hub: a part of an address, and of a path on any system. */
    public static final Pattern NAME = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,99}");

    /** @throws IllegalArgumentException where the hub is no address of a server, or a name cannot be one */
    public SendOptions {
        boolean isServer = hub.getHost() != null && ("http".equals(hub.getScheme()) || "https".equals(hub.getScheme()));
        if (!isServer || hub.getRawQuery() != null || hub.getRawUserInfo() != null)
            throw new IllegalArgumentException(
                    "'" + hub + "' is no address of a hub, such as https://runs.orto.example");
        named("project", project);
        if (run != null) named("run", run);
        if (atOnce < 1 || atOnce > LARGEST_AT_ONCE)
            throw new IllegalArgumentException(
                    "from 1 to " + LARGEST_AT_ONCE + " files are sent at once, not " + atOnce);
    }

    /** One file after another. */
    public SendOptions(URI hub, String project, @Nullable String run, String token, Duration patience) {
        this(hub, project, run, token, patience, 1);
    }

    public SendOptions withAtOnce(int number) {
        return new SendOptions(hub, project, run, token, patience, number);
    }

    /**
     * As {@code name}, which stands behind {@code what} in the error.
     *
     * @throws IllegalArgumentException where it cannot be a name
     */
    static String named(String what, String name) {
        if (!NAME.matcher(name).matches() || name.endsWith("."))
            throw new IllegalArgumentException(
                    "'" + name + "' cannot be the name of a " + what
                            + " on a hub: that has letters, digits, '.', '_' and '-', at most 100, and begins with a letter or a digit");
        return name;
    }
}
