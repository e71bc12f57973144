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
        String root = System.getProperty("verbale.build.root");
        try {
            return root == null || root.isBlank() ? null : Path.of(root);
        } catch (InvalidPathException odd) {
            return null;
        }
    }
}
