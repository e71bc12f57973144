package dev.verbale;

import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import org.jspecify.annotations.Nullable;

/** Finds the engine, once. */
final class Engine {

    private static volatile @Nullable RecorderProvider found;

    private Engine() {}

    /**
     * Not by the initialization of a class: a stack that ends in it spoils the class for the rest of the JVM's life.
     *
     * @throws LinkageError where there is no engine: a broken jar, as somebody repackaged it without its services
     */
    static RecorderProvider provider() {
        RecorderProvider known = found;
        if (known != null) return known;
        RecorderProvider fresh = loaded();
        found = fresh;
        return fresh;
    }

    private static RecorderProvider loaded() {
        try {
            return ServiceLoader.load(RecorderProvider.class, Engine.class.getClassLoader())
                    .findFirst()
                    .orElseThrow(() -> new NoClassDefFoundError(
                            "META-INF/services/dev.verbale.RecorderProvider is missing. Merge the files of services when"
                                    + " jars are put together"));
        } catch (ServiceConfigurationError broken) {
            var error = new NoClassDefFoundError("the recorder cannot be loaded: " + broken);
            error.initCause(broken);
            throw error;
        }
    }
}
