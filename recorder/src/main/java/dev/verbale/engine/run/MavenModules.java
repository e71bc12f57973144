package dev.verbale.engine.run;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

/** The modules of a Maven project, as its POMs name them. */
final class MavenModules {

    private static final Pattern MODULE = Pattern.compile("<(?:module|subproject)>\\s*([^<]+?)\\s*</");

    /** Deeper than anybody nests modules; a POM may name itself. */
    private static final int DEEPEST = 8;

    private MavenModules() {}

    /** Whether {@code project} is {@code root}, or a module of it or of one of its modules. */
    static boolean holds(Path root, Path project) throws IOException {
        return project.startsWith(root)
                && Files.isRegularFile(root.resolve("pom.xml"))
                && holds(root, project, DEEPEST);
    }

    private static boolean holds(Path root, Path project, int levels) throws IOException {
        if (root.equals(project)) return true;
        Path pom = root.resolve("pom.xml");
        if (levels == 0 || !Files.isRegularFile(pom)) return false;
        for (MatchResult module :
                (Iterable<MatchResult>) MODULE.matcher(Files.readString(pom)).results()::iterator) {
            String name = module.group(1).replaceFirst("/?pom\\.xml$", "");
            Path folder = root.resolve(name).normalize();
            if (project.startsWith(folder) && holds(folder, project, levels - 1)) return true;
        }
        return false;
    }
}
