package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * Something that holds tests began: a class, a nested class, a parameterized method.
 *
 * @param in the container around it, or 0
 * @param key its identity, the same in every run, such as {@code dev.orto.RotaTest}
 * @param name what a reader sees
 * @param className the class it comes from, where there is one
 * @param methodName the method it comes from, where it is a method's and not a class's
 * @since 0.2.0
 */
public record ContainerStarted(
        long at,
        int id,
        int in,
        String key,
        String name,
        @Nullable String className,
        @Nullable String methodName) implements Event.Begins {
    /** A container of which nothing else is known as yet. */
    public static Builder of(long at, int id, String key, String name) {
        return new Builder(at, id, key, name);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int id;
        private final String key;
        private final String name;
        private int in;
        private @Nullable String className;
        private @Nullable String methodName;

        private Builder(long at, int id, String key, String name) {
            this.at = at;
            this.id = id;
            this.key = key;
            this.name = name;
        }

        public Builder in(int value) {
            in = value;
            return this;
        }

        public Builder className(@Nullable String value) {
            className = value;
            return this;
        }

        public Builder methodName(@Nullable String value) {
            methodName = value;
            return this;
        }

        public ContainerStarted build() {
            return new ContainerStarted(at, id, in, key, name, className, methodName);
        }
    }
}
