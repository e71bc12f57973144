package dev.verbale.maven;

import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.maven.AbstractMavenLifecycleParticipant;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.model.Plugin;
import org.apache.maven.project.MavenProject;
import org.codehaus.plexus.util.xml.Xpp3Dom;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Stands around a whole build, where the plugin is declared with {@code <extensions>true</extensions>}: it hands the run to all JVMs
 * before the first module, and writes the page after the last one, whether the build succeeded or failed. Nothing that happens here
 * changes how the build ends.
 *
 * @since 0.2.0
 */
public final class WholeBuild extends AbstractMavenLifecycleParticipant {

    private static final String PLUGIN = "dev.verbale:verbale-maven-plugin";
    private static final Logger LOG = LoggerFactory.getLogger("verbale");

    private final Map<MavenSession, BuildSender> senders = new ConcurrentHashMap<>();

    /** As Maven makes it. */
    public WholeBuild() {}

    @Override
    public void afterProjectsRead(MavenSession session) {
        try {
            BuildRun.handDown(session);
            BuildSender.start(session, LOG::warn).ifPresent(sender -> senders.put(session, sender));
        } catch (RuntimeException | LinkageError broken) {
            LOG.warn(
                    "Verbale could not name the run of this build; its JVMs find one themselves. {}",
                    broken.toString());
        }
    }

    @Override
    public void afterSessionEnd(MavenSession session) {
        try {
            BuildSender sender = senders.remove(session);
            if (sender != null) sender.end(LOG::info, LOG::warn);
            end(session);
        } catch (IOException | RuntimeException | LinkageError broken) {
            LOG.warn("Verbale could not write the page of this build: {}", broken.toString());
        }
    }

    private static void end(MavenSession session) throws IOException {
        if (session.getProjects() == null || session.getTopLevelProject() == null) return; // no POM could be read
        Optional<RunFolder> run = BuildRun.find(session);
        if (run.isEmpty()) return;
        String baseline = BuildRun.setting(session, "verbale.baseline", "VERBALE_BASELINE");
        if (baseline == null) baseline = configured(session, "baseline");
        String history = configured(session, "history");
        try {
            rule(session)
                    .apply(
                            run.get(),
                            Baseline.of(session, run.get(), baseline),
                            BuildRun.history(session, history),
                            BuildRun.pageOptions(session),
                            WholeBuild::say);
        } finally { // a page that cannot be written is no reason to forget the run
            BuildRun.remember(session, run.get(), history, LOG::warn);
        }
        String keep = BuildRun.setting(session, "verbale.keep-runs", "VERBALE_KEEP_RUNS");
        if (keep == null) keep = configured(session, "keepRuns");
        if (keep != null) sweep(session, keep);
    }

    /** In a quiet build nothing but the page's address, which is what it was asked for. */
    private static void say(String line) {
        if (LOG.isInfoEnabled()) LOG.info(line);
        else if (line.startsWith(PageRule.PAGE)) System.out.println(line);
    }

    private static void sweep(MavenSession session, String keep) throws IOException {
        if (keep.matches("\\d{1,9}")) new StaleRuns(BuildRun.root(session)).delete(Integer.parseInt(keep), LOG::info);
        else
            LOG.warn("verbale.keep-runs=" + keep
                    + ": not a whole number. All runs are kept; write how many stay, such as 20.");
    }

    private static PageRule rule(MavenSession session) {
        String set = BuildRun.setting(session, "verbale.page", "VERBALE_PAGE");
        if (set == null) set = configured(session, "page");
        return PageRule.of(set == null ? "always" : set);
    }

    /** What stands in the plugin's configuration, in the build's own project or the first that has it. */
    private static @Nullable String configured(MavenSession session, String parameter) {
        String found = configured(session.getTopLevelProject(), parameter);
        for (MavenProject project : session.getProjects()) if (found == null) found = configured(project, parameter);
        return found;
    }

    private static @Nullable String configured(MavenProject project, String parameter) {
        Plugin plugin = project.getPlugin(PLUGIN);
        if (plugin == null || !(plugin.getConfiguration() instanceof Xpp3Dom all)) return null;
        Xpp3Dom one = all.getChild(parameter);
        return one == null ? null : one.getValue();
    }
}
