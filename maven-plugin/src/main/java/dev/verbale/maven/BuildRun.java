package dev.verbale.maven;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.RunName;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.report.PageOptions;
import dev.verbale.report.PageSettings;
import dev.verbale.results.RunReader;
import dev.verbale.rules.Rules;
import dev.verbale.rules.RulesReader;
import dev.verbale.rules.TriageRule;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.Random;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.project.MavenProject;
import org.jspecify.annotations.Nullable;

/**
 * The run of a build: where it lies and what it is called. It is handed to the JVMs that run tests by user properties of the session,
 * which Surefire and Failsafe pass on. What a user set stands above it.
 */
final class BuildRun {

    static final String RUN = "verbale.build.run";
    static final String ROOT = "verbale.build.root";
    static final String FOLDER = "verbale.build.folder";
    static final String MODULES = "verbale.build.modules";
    static final String PAGE = "verbale.build.page";

    private static final int MAX_NAMED = 5;

    private BuildRun() {}

    /** From now on all tests of the session are recorded into one run. A second call changes nothing. */
    static void handDown(MavenSession session) {
        Properties user = session.getUserProperties();
        if (user.containsKey(RUN)) return;
        user.setProperty(RUN, RunName.of(Clock.systemUTC().instant(), new Random()));
        user.setProperty(ROOT, defaultRoot(session).toString());
        user.setProperty(
                FOLDER, rootOfAllModules(session).toAbsolutePath().normalize().toString());
        String modules = modules(session);
        if (!modules.isEmpty()) user.setProperty(MODULES, modules);
        user.setProperty(PAGE, "plugin");
    }

    /** Which modules were asked for, as one would ask for them; empty where the build has all that it can have. */
    private static String modules(MavenSession session) {
        List<MavenProject> asked = session.getProjects();
        List<MavenProject> all = session.getAllProjects();
        if (asked == null || all == null || asked.size() >= all.size()) return "";
        if (asked.size() > MAX_NAMED) return asked.size() + " of " + all.size() + " modules";
        return "-pl " + asked.stream().map(MavenProject::getArtifactId).collect(Collectors.joining(","));
    }

    private static Path defaultRoot(MavenSession session) {
        return rootOfAllModules(session).toAbsolutePath().normalize().resolve(ResultsRoot.DEFAULT);
    }

    /** Maven's is that of a checkout, in which a project of its own may lie that has nothing to do with the others. */
    static Path rootOfAllModules(MavenSession session) {
        Path checkout = session.getRequest().getMultiModuleProjectDirectory().toPath();
        Path outermost = null;
        for (MavenProject one = session.getTopLevelProject(); one != null; one = one.getParent()) {
            if (one.getBasedir() == null) break; // a parent from the repository
            outermost = one.getBasedir().toPath();
            if (outermost.equals(checkout)) return checkout;
        }
        return outermost == null ? checkout : outermost;
    }

    /** Where runs are made: as a user said, or as this plugin does. */
    static Path root(MavenSession session) {
        String set = setting(session, "verbale.root", "VERBALE_ROOT");
        if (set == null) return defaultRoot(session);
        MavenProject project =
                session.getCurrentProject() == null ? session.getTopLevelProject() : session.getCurrentProject();
        return project.getBasedir().toPath().resolve(set);
    }

    /**
     * Where runs are remembered; empty where they are not.
     *
     * @param configured what the plugin's configuration says; null where it says nothing
     */
    static Optional<HistoryFolder> history(MavenSession session, @Nullable String configured) {
        String set = setting(session, "verbale.history", "VERBALE_HISTORY");
        if (set == null) set = configured;
        if (set != null && set.equals("off")) return Optional.empty();
        Path root = rootOfAllModules(session).toAbsolutePath().normalize();
        return Optional.of(new HistoryFolder(root.resolve(set == null ? HistoryFolder.DEFAULT : set)));
    }

    /** Remembers the run where runs are remembered. Nobody's build waits for that, or fails by it. */
    static void remember(
            MavenSession session, RunFolder folder, @Nullable String configured, Consumer<String> warning) {
        Optional<HistoryFolder> history = history(session, configured);
        if (history.isEmpty()) return;
        try {
            RunDigest digest = RunDigest.of(RunReader.read(folder.path()));
            if (!digest.tests().isEmpty()) history.get().add(digest);
        } catch (IOException | RuntimeException failed) {
            warning.accept(
                    "Verbale: the run was not remembered in " + history.get().path() + ": " + failed);
        }
    }

    /** The run of this build; where it recorded none, the newest there is. */
    static Optional<RunFolder> findOrNewest(MavenSession session) throws IOException {
        Optional<RunFolder> own = find(session);
        if (own.isPresent()) return own;
        return new ResultsRoot(root(session)).runs().stream().reduce((earlier, later) -> later);
    }

    /** The run of this build, where it recorded one. */
    static Optional<RunFolder> find(MavenSession session) throws IOException {
        String named = setting(session, "verbale.run", "VERBALE_RUN");
        String name = named == null ? session.getUserProperties().getProperty(RUN) : named;
        var runs = new ResultsRoot(root(session)).runs();
        if (name == null) return Optional.empty();
        return runs.stream().filter(run -> run.name().equals(name)).findFirst();
    }

    /** As the recorder would find it in the tests' JVM: system property, environment, file. */
    static @Nullable String setting(MavenSession session, String key, String inEnvironment) {
        String value = session.getUserProperties().getProperty(key);
        if (value == null) value = System.getenv(inEnvironment);
        for (MavenProject project : session.getProjects()) if (value == null) value = inFile(project, key);
        return value == null || value.isBlank() ? null : value.strip();
    }

    /**
     * How the page of the build looks, and what is left out of it: by the settings that the page at the end of a run goes by. A logo is
     * looked for from the outermost POM on.
     *
     * @throws IllegalArgumentException where one of them cannot be
     */
    static PageOptions pageOptions(MavenSession session) {
        PageOptions options = PageSettings.options(setting -> {
            String value = setting(session, setting.key(), setting.inEnvironment());
            return value == null || !setting.equals(PageSettings.LOGO)
                    ? value
                    : rootOfAllModules(session).resolve(value).toString();
        });
        return options.withRules(triage(session));
    }

    /** What the team's file says of failures; nothing where there is none. */
    private static List<TriageRule> triage(MavenSession session) {
        Path file = rootOfAllModules(session).resolve(Rules.DEFAULT);
        if (!Files.exists(file)) return List.of();
        try {
            return RulesReader.read(file).triage();
        } catch (YamlFormatException wrong) {
            throw new IllegalArgumentException(wrong.getMessage(), wrong);
        } catch (IOException unreadable) {
            throw new IllegalArgumentException(file + " cannot be read: " + unreadable.getMessage(), unreadable);
        }
    }

    private static @Nullable String inFile(MavenProject project, String key) {
        Path file = project.getBasedir().toPath().resolve("src/test/resources/verbale.properties");
        if (!Files.isRegularFile(file)) return null;
        var properties = new Properties();
        try (InputStream in = Files.newInputStream(file)) {
            properties.load(in);
        } catch (IOException | IllegalArgumentException unreadable) {
            return null; // the recorder says so in the run
        }
        return properties.getProperty(key);
    }
}
