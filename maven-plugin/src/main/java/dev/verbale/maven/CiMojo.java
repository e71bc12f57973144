package dev.verbale.maven;

import dev.verbale.history.HistoryFolder;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.inject.Inject;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugin.MojoExecutionException;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugin.descriptor.PluginDescriptor;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.eclipse.aether.RepositorySystem;
import org.eclipse.aether.artifact.DefaultArtifact;
import org.eclipse.aether.resolution.ArtifactRequest;
import org.eclipse.aether.resolution.ArtifactResolutionException;
import org.jspecify.annotations.Nullable;

/**
 * Does at the end of a job what {@code verbale-ci.yaml} beside the outermost POM says, as {@code verbale ci} does: join, remember,
 * page, export, pack, publish, send, mail, gate. In the last module, by the command line of this version, in a JVM of its own.
 *
 * @since 0.2.0
 */
@Mojo(name = "ci", defaultPhase = LifecyclePhase.VERIFY, threadSafe = true)
public final class CiMojo extends AbstractMojo {

    private static final int GATE_CLOSED = 5;

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    @Parameter(defaultValue = "${plugin}", readonly = true, required = true)
    private PluginDescriptor plugin;

    @Inject
    private RepositorySystem artifacts;

    /** What is to be done. Left out: {@code verbale-ci.yaml} beside the outermost POM; where there is none, page and gate. */
    @Parameter(property = "verbale.ci.file")
    private @Nullable File file;

    /** Where runs are remembered, or {@code off}. Left out: {@code .verbale/history} beside the outermost POM. */
    @Parameter(property = "verbale.history")
    private @Nullable String history;

    /** As Maven makes it. */
    @SuppressWarnings("NullAway.Init")
    public CiMojo() {}

    @Override
    public void execute() throws MojoExecutionException, MojoFailureException {
        boolean isLast = session.getCurrentProject()
                .equals(session.getProjects().get(session.getProjects().size() - 1));
        if (!isLast) return;
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx512m",
                "-XX:+UseSerialGC",
                "-jar",
                commandLine().toString(),
                "ci"));
        if (file != null) command.add("--file=" + file);
        try {
            int code = run(command);
            if (code == GATE_CLOSED) throw new MojoFailureException("The gate is closed; what closes it stands above.");
            if (code != 0)
                throw new MojoExecutionException("verbale ci ended with " + code + "; what it said stands above.");
        } catch (IOException failed) {
            throw new MojoExecutionException("The command line could not be started: " + failed, failed);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
            throw new MojoExecutionException("The build was interrupted.", hurried);
        }
    }

    private int run(List<String> command) throws IOException, InterruptedException {
        var builder = new ProcessBuilder(command)
                .directory(BuildRun.rootOfAllModules(session).toFile())
                .redirectErrorStream(true);
        builder.environment().put("VERBALE_ROOT", BuildRun.root(session).toString());
        Optional<HistoryFolder> remembered = BuildRun.history(session, history);
        remembered.ifPresent(folder ->
                builder.environment().put("VERBALE_HISTORY", folder.path().toString()));
        Process process = builder.start();
        process.getOutputStream().close();
        try (BufferedReader lines = process.inputReader(StandardCharsets.UTF_8)) {
            // As they stand: a CI system reads some of them.
            for (String line = lines.readLine(); line != null; line = lines.readLine()) System.out.println(line);
            return process.waitFor();
        } finally {
            process.destroy();
        }
    }

    /** All of it in one jar, from where Maven has its artifacts. */
    private Path commandLine() throws MojoExecutionException {
        var request = new ArtifactRequest(
                new DefaultArtifact("dev.verbale", "verbale-cli", "all", "jar", plugin.getVersion()),
                session.getCurrentProject().getRemotePluginRepositories(),
                null);
        try {
            return artifacts
                    .resolveArtifact(session.getRepositorySession(), request)
                    .getArtifact()
                    .getFile()
                    .toPath();
        } catch (ArtifactResolutionException missing) {
            throw new MojoExecutionException("The command line is not to be had: " + missing.getMessage(), missing);
        }
    }
}
