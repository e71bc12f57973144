package dev.verbale.maven;

import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.util.Optional;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugin.MojoExecutionException;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.jspecify.annotations.Nullable;

/**
 * Writes the page of the build's run, or of the newest run where this build recorded none: {@code mvn verbale:page}. With
 * {@code <extensions>true</extensions>} it is written at the end of each build anyway.
 *
 * @since 0.2.0
 */
@Mojo(name = "page", aggregator = true, threadSafe = true)
public final class PageMojo extends AbstractMojo {

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    /** When a page is written: {@code off}, {@code failures} (where a test needs attention) or {@code always}. */
    @Parameter(property = "verbale.page", defaultValue = "always")
    private String page;

    /** A run to compare with: its name, or {@code previous} for the one before, where there is one. */
    @Parameter(property = "verbale.baseline")
    private @Nullable String baseline;

    /** How many runs are kept below the results root, the newest; older ones are deleted. Left out: all. */
    @Parameter(property = "verbale.keep-runs")
    private int keepRuns;

    /** Where runs are remembered, or {@code off}. Left out: {@code .verbale/history} beside the outermost POM. */
    @Parameter(property = "verbale.history")
    private @Nullable String history;

    /** As Maven makes it. */
    @SuppressWarnings("NullAway.Init")
    public PageMojo() {}

    @Override
    public void execute() throws MojoExecutionException, MojoFailureException {
        try {
            Optional<RunFolder> run = BuildRun.findOrNewest(session);
            if (run.isEmpty())
                throw new MojoFailureException("There is no run in " + BuildRun.root(session)
                        + ". Run the tests first; an adapter of Verbale has to be on their class path.");
            PageRule.of(page)
                    .apply(
                            run.get(),
                            Baseline.of(session, run.get(), baseline),
                            BuildRun.history(session, history),
                            BuildRun.pageOptions(session),
                            getLog()::info);
            BuildRun.remember(session, run.get(), history, getLog()::warn);
            if (keepRuns > 0) new StaleRuns(BuildRun.root(session)).delete(keepRuns, getLog()::info);
        } catch (IllegalArgumentException wrong) {
            throw new MojoFailureException(wrong.getMessage(), wrong);
        } catch (IOException failed) {
            throw new MojoExecutionException("The page was not written: " + failed, failed);
        }
    }
}
