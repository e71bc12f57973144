package dev.verbale.border;

import dev.verbale.stack.HeapSpace;
import dev.verbale.stack.StackSpace;
import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What gives recorders, found once and by its name: so that the interface for tests knows nothing of the engine.
 *
 * @param <R> a recorder
 * @param <O> how one is opened
 */
public interface Engine<R, O> {

    /** The recorder of this JVM; the first call opens it. */
    R current();

    /** The recorder of this JVM where a call has opened it. */
    Optional<R> currentIfOpen();

    /** A recorder beside that of this JVM. */
    R open(O options);

    /**
     * The engine of this JVM.
     *
     * @throws LinkageError where there is none: a broken jar, as somebody repackaged it without its classes
     * @throws OutOfMemoryError where there is no memory to load it: a later call tries again
     */
    static <R, O> Engine<R, O> loaded() {
        return Loaded.get();
    }

    /** Loads what looks for the engine, which a later call may find no file or memory to load. The engine itself is not looked for. */
    static void isThere() {
        Loaded.prepare();
    }

    /** Not kept by the initialization of a class: a stack that ends in it spoils the class for the rest of the JVM's life. */
    final class Loaded {
        private static final String NAME = "dev.verbale.engine.Recorders";

        private static volatile @Nullable Engine<?, ?> found;

        private Loaded() {}

        /** That they are named loads them. */
        private static int prepare() {
            return List.of(StackSpace.class, HeapSpace.class).size();
        }

        @SuppressWarnings("unchecked") // there is one engine, and it gives what its only caller asks for
        static <R, O> Engine<R, O> get() {
            Engine<?, ?> known = found;
            if (known == null) found = known = made();
            return (Engine<R, O>) known;
        }

        /** A class that cannot be read once is lost to whoever needed it: none is asked for where no file can be opened. */
        private static void ensureReadable() {
            URL own = Engine.class.getResource("Engine.class");
            if (own == null) return; // as in a JVM that has its classes elsewhere
            try (InputStream opened = own.openStream()) {
                if (opened.read() < 0) throw new NoClassDefFoundError("a class file is empty: " + own);
            } catch (IOException closed) {
                throw new NoClassDefFoundError("no class can be read now: " + closed);
            }
        }

        /** By its name: what is looked for as a service is looked for in each jar of the class path, before the first test. */
        private static Engine<?, ?> made() {
            StackSpace.ensureForFirstCall();
            HeapSpace.ensureForFirstCall();
            ensureReadable();
            try {
                return Class.forName(NAME)
                        .asSubclass(Engine.class)
                        .getDeclaredConstructor()
                        .newInstance();
            } catch (ReflectiveOperationException broken) {
                var error = new NoClassDefFoundError("the recorder cannot be loaded: " + broken);
                error.initCause(broken);
                throw error;
            }
        }
    }
}
