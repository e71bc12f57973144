package dev.verbale.internal;

import java.time.Instant;
import java.util.Optional;

/**
 * The build that forked this JVM to run tests. Its process id and start are the same seen from every fork and module, so
 * all of them find one run without talking to each other, and two builds at once never do.
 *
 * @param pid of the build tool's process
 * @param started when that process started
 */
record BuildProcess(long pid, Instant started) {

    private static final int FURTHEST_ANCESTOR = 6;

    /**
     * The Maven process above this JVM, where Surefire or Failsafe started it. A JVM that a test starts is not asked to
     * join: it is a run of its own.
     */
    static Optional<BuildProcess> ofThisFork() {
        if (!System.getProperty("sun.java.command", "").contains("surefire")) return Optional.empty();
        Optional<ProcessHandle> process = ProcessHandle.current().parent();
        for (int i = 0; i < FURTHEST_ANCESTOR && process.isPresent(); i++) {
            ProcessHandle.Info info = process.get().info();
            // The class in Maven's own start script. The shell between Maven and the fork also names the fork's jar.
            boolean maven = info.commandLine().orElse("").contains("org.codehaus.plexus.classworlds.launcher.Launcher");
            if (maven && info.startInstant().isPresent())
                return Optional.of(new BuildProcess(
                        process.get().pid(), info.startInstant().get()));
            process = process.get().parent();
        }
        return Optional.empty();
    }
}
