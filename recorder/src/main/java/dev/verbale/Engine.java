package dev.verbale;

import dev.verbale.stack.StackSpace;
import org.jspecify.annotations.Nullable;

/** Finds the engine, once. */
final class Engine {

    private static final String NAME = "dev.verbale.engine.Recorders";

    private static volatile @Nullable RecorderProvider found;

    private Engine() {}

    /**
     * Not by the initialization of a class: a stack that ends in it spoils the class for the rest of the JVM's life.
     *
     * @throws LinkageError where there is no engine: a broken jar, as somebody repackaged it without its classes
     */
    static RecorderProvider provider() {
        RecorderProvider known = found;
        if (known != null) return known;
        RecorderProvider fresh = loaded();
        found = fresh;
        return fresh;
    }

    /** By its name: what is looked for as a service is looked for in each jar of the class path, before the first test. */
    private static RecorderProvider loaded() {
        StackSpace.ensureForFirstCall();
        try {
            return Class.forName(NAME)
                    .asSubclass(RecorderProvider.class)
                    .getDeclaredConstructor()
                    .newInstance();
        } catch (ReflectiveOperationException broken) {
            var error = new NoClassDefFoundError("the recorder cannot be loaded: " + broken);
            error.initCause(broken);
            throw error;
        }
    }
}
