package dev.verbale.maven;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import java.io.File;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import org.apache.maven.doxia.sink.Sink;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.plugin.AbstractMojo;
import org.apache.maven.plugin.MojoExecutionException;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.apache.maven.reporting.MavenReport;
import org.apache.maven.reporting.MavenReportException;

/**
 * Puts the page of the newest run into the project's site, and a link to it among the site's reports. Named among the
 * {@code <reporting>} plugins of a project, it is run by {@code mvn site}.
 *
 * @since 0.2.0
 */
@Mojo(name = "site", threadSafe = true)
public final class SiteMojo extends AbstractMojo implements MavenReport {

    /** In the site; the report of a site is a file in a folder of its own. */
    private static final String NAME = "verbale/index";

    @Parameter(defaultValue = "${session}", readonly = true, required = true)
    private MavenSession session;

    /** Where the site is made. */
    @Parameter(defaultValue = "${project.reporting.outputDirectory}", required = true)
    private File outputDirectory;

    /** As Maven makes it. */
    @SuppressWarnings("NullAway.Init")
    public SiteMojo() {}

    @Override
    public void execute() throws MojoExecutionException {
        try {
            write();
        } catch (MavenReportException failed) {
            throw new MojoExecutionException(failed.getMessage(), failed);
        }
    }

    @Override
    public void generate(Sink sink, Locale locale) throws MavenReportException {
        write();
    }

    private void write() throws MavenReportException {
        try {
            Optional<RunFolder> found = BuildRun.findOrNewest(session);
            if (found.isEmpty()) return;
            Page.write(
                    found.get(),
                    getReportOutputDirectory().toPath().resolve("verbale"),
                    BuildRun.pageOptions(session),
                    any -> true);
        } catch (IOException | IllegalArgumentException failed) {
            throw new MavenReportException("The page was not written into the site: " + failed, failed);
        }
    }

    @Override
    @SuppressWarnings("deprecation") // older site plugins ask by this name
    public String getOutputName() {
        return NAME;
    }

    @Override
    public String getOutputPath() {
        return NAME;
    }

    @Override
    public String getCategoryName() {
        return CATEGORY_PROJECT_REPORTS;
    }

    @Override
    public String getName(Locale locale) {
        return "Test run";
    }

    @Override
    public String getDescription(Locale locale) {
        return "What happened in the tests: steps, failures with their evidence, exchanges.";
    }

    @Override
    public void setReportOutputDirectory(File directory) {
        outputDirectory = directory;
    }

    @Override
    public File getReportOutputDirectory() {
        return outputDirectory;
    }

    @Override
    public boolean isExternalReport() {
        return true;
    }

    @Override
    public boolean canGenerateReport() {
        try {
            return BuildRun.findOrNewest(session).isPresent();
        } catch (IOException unreadable) {
            return false;
        }
    }
}
