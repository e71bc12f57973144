package dev.verbale.event;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A test began. A test that is skipped also has this event, and its {@link TestEnded} follows at once.
 *
 * @param in the container around it, or 0
 * @param key its identity, the same in every run, machine and language: class, method, signature, invocation
 * @param name what a reader sees; may change from run to run
 * @param className the class it comes from, where there is one
 * @param methodName the method it comes from, where there is one
 * @param thread the name of the thread it runs on
 * @param tags in the order of the alphabet
 * @param source where it is written, as a file and a line, where its class does not say it
 * @since 0.2.0
 */
public record TestStarted(
        long at,
        int id,
        int in,
        String key,
        String name,
        @Nullable String className,
        @Nullable String methodName,
        String thread,
        List<String> tags,
        @Nullable String source)
        implements Event.Begins {

    public TestStarted {
        tags = List.copyOf(tags);
    }

    /** This beginning with another key and name: more is known now of which test it is. */
    public TestStarted as(String itsKey, String itsName) {
        return new TestStarted(at, id, in, itsKey, itsName, className, methodName, thread, tags, source);
    }

    /** A test of which nothing else is known as yet. */
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
        private String thread = "";
        private List<String> tags = List.of();
        private @Nullable String source;

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

        public Builder thread(String value) {
            thread = value;
            return this;
        }

        public Builder tags(List<String> value) {
            tags = value;
            return this;
        }

        public Builder source(@Nullable String value) {
            source = value;
            return this;
        }

        public TestStarted build() {
            return new TestStarted(at, id, in, key, name, className, methodName, thread, tags, source);
        }
    }
}
