package dev.verbale.hostile;

import java.io.InputStream;
import java.lang.reflect.Array;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/** Values that do everything that a value must not do. */
public final class Hostile {

    /** The errors that they throw, one after the other: what is caught as one kind must be caught as all. */
    private static final List<Throwable> THROWN = List.of(
            new AssertionError("hostile"),
            new StackOverflowError("hostile"),
            new OutOfMemoryError("hostile"),
            new NoClassDefFoundError("hostile"),
            new InternalError("hostile"),
            new IllegalStateException("hostile"));

    private static int next;

    private Hostile() {}

    static synchronized RuntimeException thrown() {
        throw Hostile.<RuntimeException>sneaky(THROWN.get(next++ % THROWN.size()));
    }

    @SuppressWarnings("unchecked")
    private static <X extends Throwable> X sneaky(Throwable thrown) throws X {
        throw (X) thrown;
    }

    /** One of {@code type}, as bad as that allows. */
    static Object value(Class<?> type) {
        if (type == String.class) return "half \uD83C a character, \0, " + "long ".repeat(20_000);
        if (type == CharSequence.class || type == Object.class) return new Text();
        if (Throwable.class.isAssignableFrom(type)) return new Thrown();
        if (type == InputStream.class) return new Stream();
        if (type == Path.class) return Path.of("nowhere", "at", "all");
        if (type == Duration.class) return Duration.ofSeconds(Long.MAX_VALUE, 999_999_999);
        if (type == int.class) return Integer.MIN_VALUE;
        if (type == long.class) return Long.MIN_VALUE;
        if (type == boolean.class) return true;
        if (type == double.class) return Double.NaN;
        if (type.isEnum()) return type.getEnumConstants()[0];
        if (type.isArray())
            return type == Object[].class
                    ? new Object[] {new Text(), null}
                    : Array.newInstance(type.getComponentType(), 0);
        return type.isInterface() ? proxy(type) : null;
    }

    private static Object proxy(Class<?> type) {
        try {
            return Proxy.newProxyInstance(type.getClassLoader(), new Class<?>[] {type}, (self, method, arguments) -> {
                throw thrown();
            });
        } catch (NoClassDefFoundError optional) { // something that a library speaks of and can do without
            return null;
        }
    }

    static final class Text {
        @Override
        public String toString() {
            throw thrown();
        }

        @Override
        public boolean equals(Object other) {
            throw thrown();
        }

        @Override
        public int hashCode() {
            throw thrown();
        }
    }

    static final class Stream extends InputStream {
        @Override
        public int read() {
            throw thrown();
        }

        @Override
        public int read(byte[] into, int from, int length) {
            throw thrown();
        }
    }

    /** Throws whatever it is asked. */
    public static final class Thrown extends Exception {
        private static final long serialVersionUID = 1;

        @Override
        public String getMessage() {
            throw thrown();
        }

        @Override
        public synchronized Throwable getCause() {
            throw thrown();
        }

        @Override
        public StackTraceElement[] getStackTrace() {
            throw thrown();
        }

        @Override
        public String toString() {
            throw thrown();
        }
    }
}
