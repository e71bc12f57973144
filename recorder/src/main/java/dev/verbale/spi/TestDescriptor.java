package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is known of a test or container before it begins. Only its key and its name are needed; more may come to be said in a
 * later version.
 *
 * <pre>{@code
 * Scope test = lifecycle.startTest(container, TestDescriptor.of("garden.csv/Weed a bed", "Weed a bed")
 *         .tags(List.of("table"))
 *         .build());
 * }</pre>
 *
 * @since 0.2.0
 */
public final class TestDescriptor {

    private final String key;
    private final String name;
    private final @Nullable String className;
    private final @Nullable String methodName;
    private final List<String> tags;
    private final @Nullable String source;

    private TestDescriptor(Builder builder) {
        this.key = builder.key;
        this.name = builder.name;
        this.className = builder.className;
        this.methodName = builder.methodName;
        List<String> copy = SafeCopies.list(builder.tags);
        this.tags = copy.size() > 1 ? copy.stream().sorted().toList() : copy;
        this.source = builder.source;
    }

    /**
     * One of which nothing else is said as yet.
     *
     * @param key the same in every run, on every machine and in every language
     * @param name what a reader sees
     */
    public static Builder of(String key, String name) {
        return new Builder(key, name);
    }

    /** The same in every run, on every machine and in every language. */
    public String key() {
        return key;
    }

    /** What a reader sees. */
    public String name() {
        return name;
    }

    /** The class it comes from, or null. */
    public @Nullable String className() {
        return className;
    }

    /** The method it comes from, or null. */
    public @Nullable String methodName() {
        return methodName;
    }

    /** In the order of the alphabet, whatever order they were given in. */
    public List<String> tags() {
        return tags;
    }

    /** Where it is written, as a file and a line, where its class does not say it; null otherwise. */
    public @Nullable String source() {
        return source;
    }

    /** Whether {@code other} says the same. */
    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof TestDescriptor that
                && Objects.equals(key, that.key)
                && Objects.equals(name, that.name)
                && Objects.equals(className, that.className)
                && Objects.equals(methodName, that.methodName)
                && tags.equals(that.tags)
                && Objects.equals(source, that.source);
    }

    @Override
    public int hashCode() {
        return Objects.hash(key, name);
    }

    /** Its name and its key, for messages. */
    @Override
    public String toString() {
        return name + " (" + key + ")";
    }

    /**
     * What is said of a test or container. Each call is explained by the accessor of its name; what is null is not said. Not for
     * several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final String key;
        private final String name;
        private @Nullable String className;
        private @Nullable String methodName;
        private @Nullable List<String> tags;
        private @Nullable String source;

        private Builder(String key, String name) {
            this.key = key;
            this.name = name;
        }

        /** See {@link TestDescriptor#className()}. */
        public Builder className(@Nullable String its) {
            className = its;
            return this;
        }

        /** See {@link TestDescriptor#methodName()}. */
        public Builder methodName(@Nullable String its) {
            methodName = its;
            return this;
        }

        /** See {@link TestDescriptor#tags()}. What it holds is copied by {@link #build()}. */
        public Builder tags(@Nullable List<String> its) {
            tags = its;
            return this;
        }

        /** See {@link TestDescriptor#source()}. */
        public Builder source(@Nullable String fileAndLine) {
            source = fileAndLine;
            return this;
        }

        /** All that was said. */
        public TestDescriptor build() {
            return new TestDescriptor(this);
        }
    }
}
