package dev.verbale.viewer;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.PageOptions;
import dev.verbale.results.progress.RunProgress.Expectation;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a viewer shows, and to whom.
 *
 * @param root the folder that holds the runs; need not be there yet
 * @param address where it listens; port 0 for one that is free
 * @param token what everybody has to say first; null for none, which a loopback address may do without
 * @param pages what a page is made of beside its run
 * @since 0.2.0
 */
public record ViewerOptions(
        Path root, InetSocketAddress address, @Nullable String token, Pages pages) {

    /** @throws IllegalArgumentException where strangers could look in without a token */
    public ViewerOptions {
        Objects.requireNonNull(root, "root");
        Objects.requireNonNull(pages, "pages");
        if (address.isUnresolved())
            throw new IllegalArgumentException("there is no address " + address.getHostString());
        if (token != null && token.length() < SHORTEST_TOKEN)
            throw new IllegalArgumentException("a token has " + SHORTEST_TOKEN + " characters at the least");
        if (token == null && !address.getAddress().isLoopbackAddress())
            throw new IllegalArgumentException(
                    "who can reach " + address.getHostString() + " could read all runs; give a token");
    }

    private static final int SHORTEST_TOKEN = 12;

    /** What a page is made of beside its run. Called from several threads, one at a time. */
    public interface Pages {
        /** For the page of {@code run}, as it is now. */
        PageOptions options(RunFolder run) throws IOException;

        /** What a run that goes will probably be like. */
        default Expectation expected(RunFolder run) throws IOException {
            return Expectation.NONE;
        }

        /** Another number where what a page has beside its run has become different: it is made anew then, when it is asked for. */
        default long version(RunFolder run) {
            return 0;
        }
    }
}
