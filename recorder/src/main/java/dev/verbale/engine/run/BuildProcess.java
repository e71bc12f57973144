package dev.verbale.engine.run;

import java.io.IOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The build that forked this JVM to run tests. Its process id and start are the same seen from every fork and module, so
 * all of them find one run without talking to each other, and two builds at once never do.
 *
 * @param pid of the build tool's process
 * @param started when that process started
 * @param commandLine how it was started
 */
record BuildProcess(long pid, Instant started, String commandLine) {

    private static final int FURTHEST_ANCESTOR = 6;

    /** The class in Maven's own start script. The shell between Maven and the fork names the fork's jar, and not this. */
    private static final String MAVEN = "org.codehaus.plexus.classworlds.launcher.Launcher";

    private static final String ROOT = "-Dmaven\\.multiModuleProjectDirectory=(.+?) (?=-|" + Pattern.quote(MAVEN) + ")";

    /**
     * The Maven process above this JVM, where Surefire or Failsafe started it. A JVM that a test starts is not asked to
     * join: it is a run of its own.
     */
    public static Optional<BuildProcess> ofThisFork() {
        String own = System.getProperty("sun.java.command", "");
        // Where nothing is forked the tests run in the build itself: each module in a class loader of its own, one
        // process.
        boolean inBuild = own.startsWith(MAVEN);
        if (!inBuild && !own.contains("surefire")) return Optional.empty();
        Optional<ProcessHandle> process = inBuild
                ? Optional.of(ProcessHandle.current())
                : ProcessHandle.current().parent();
        for (int i = 0; i < FURTHEST_ANCESTOR && process.isPresent(); i++) {
            ProcessHandle.Info info = process.get().info();
            String commandLine = info.commandLine().orElse("");
            if (commandLine.contains(MAVEN) && info.startInstant().isPresent())
                return Optional.of(new BuildProcess(
                        process.get().pid(), info.startInstant().get(), commandLine));
            process = process.get().parent();
        }
        return Optional.empty();
    }

    /**
     * The folder that holds all modules of the build, as Maven's start script found it; empty where this JVM's module is
     * not below it, or where it holds no project.
     */
    public Optional<Path> root() {
        Matcher match = Pattern.compile(ROOT).matcher(commandLine);
        if (!match.find()) return Optional.empty();
        try {
            Path root = Path.of(match.group(1));
            return MavenModules.holds(root, Path.of("").toAbsolutePath()) ? Optional.of(root) : Optional.empty();
        } catch (InvalidPathException | IOException odd) {
            return Optional.empty();
        }
    }
}
