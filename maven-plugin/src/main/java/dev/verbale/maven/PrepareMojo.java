package dev.verbale.maven;

import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;

/**
 * Gives the build one run, which all forks, modules and test plugins record into. Not needed where the plugin is declared with
 * {@code <extensions>true</extensions>}: then it is done before the first module.
 *
 * @since 0.2.0
 */
@Mojo(name = "prepare", defaultPhase = LifecyclePhase.INITIALIZE, threadSafe = true)
public final class PrepareMojo extends AbstractMojo {

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    /** As Maven makes it. */
    @SuppressWarnings("NullAway.Init")
    public PrepareMojo() {}

    @Override
    public void execute() {
        BuildRun.handDown(session);
        getLog().debug("The run of this build is " + session.getUserProperties().getProperty(BuildRun.RUN));
    }
}
