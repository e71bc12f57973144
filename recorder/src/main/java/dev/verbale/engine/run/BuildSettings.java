package dev.verbale.engine.run;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * What a build plugin says to the JVMs that it has tests run in, by system properties of their own: they stand below what a user
 * sets, and above what this JVM finds out for itself.
 */
final class BuildSettings {

    private BuildSettings() {}

    /** The name of the build's run; null where no plugin says it. */
    static @Nullable String run() {
        String name = System.getProperty("verbale.build.run");
        return name == null || !name.matches("[\\w.-]{1,100}") ? null : name;
    }

    /** The folder that the build's run is made in; null where no plugin says it. */
    static @Nullable Path root() {
        return path("verbale.build.root");
    }

    /** The folder of the build, which holds all its modules; null where no plugin says it. */
    static @Nullable Path folder() {
        return path("verbale.build.folder");
    }

    /** Which modules the build was asked for, such as {@code -pl beds}; null where it has all of them, or no plugin says it. */
    static @Nullable String modules() {
        String modules = System.getProperty("verbale.build.modules");
        return modules == null || modules.isBlank() ? null : modules;
    }

    private static @Nullable Path path(String property) {
        String root = System.getProperty(property);
        try {
            return root == null || root.isBlank() ? null : Path.of(root);
        } catch (InvalidPathException odd) {
            return null;
        }
    }
}
