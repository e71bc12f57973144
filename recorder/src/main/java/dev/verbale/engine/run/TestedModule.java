package dev.verbale.engine.run;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;

/** Which module of its build this JVM tests: the path from the folder that holds them all, the same on every machine. */
public final class TestedModule {

    /** Further up nobody keeps the folder of a build. */
    private static final int FURTHEST = 8;

    private TestedModule() {}

    /** Its name; empty where the build has one only, or where it cannot be known. */
    public static String ofThisJvm() {
        Path here = folder();
        Path handedDown = BuildSettings.folder();
        Path all = handedDown == null
                ? BuildProcess.ofThisFork().flatMap(BuildProcess::root).orElse(here)
                : handedDown;
        return here.startsWith(all) && !here.equals(all) ? below(all, here) : withoutBuild(here);
    }

    /** That which {@code here} is the folder of, where no build says it: an editor runs the test, or somebody's own runner. */
    static String withoutBuild(Path here) {
        return below(outermost(here), here);
    }

    /** Surefire and Failsafe say it, where the working directory is another, or where they fork nothing. */
    private static Path folder() {
        Path working = Path.of("").toAbsolutePath();
        String named = System.getProperty("basedir");
        if (named == null) return working;
        try {
            Path folder = Path.of(named).toAbsolutePath().normalize();
            return Files.isDirectory(folder) ? folder : working;
        } catch (InvalidPathException odd) {
            return working;
        }
    }

    /** The outermost project that names this folder as one of its modules. */
    private static Path outermost(Path here) {
        Path found = here;
        int steps = 0;
        for (Path one = here.getParent(); one != null && steps++ < FURTHEST; one = one.getParent())
            if (holds(one, here)) found = one;
        return found;
    }

    private static boolean holds(Path folder, Path project) {
        if (Files.isRegularFile(folder.resolve("settings.gradle"))
                || Files.isRegularFile(folder.resolve("settings.gradle.kts"))) return true;
        try {
            return MavenModules.holds(folder, project);
        } catch (IOException | InvalidPathException unreadable) {
            return false;
        }
    }

    private static String below(Path all, Path here) {
        return all.relativize(here).toString().replace(File.separatorChar, '/');
    }
}
