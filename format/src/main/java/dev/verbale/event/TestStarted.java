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
        implements Event {

    public TestStarted {
        tags = List.copyOf(tags);
    }

    /** One whose class says where it is written. */
    public TestStarted(
            long at,
            int id,
            int in,
            String key,
            String name,
            @Nullable String className,
            @Nullable String methodName,
            String thread,
            List<String> tags) {
        this(at, id, in, key, name, className, methodName, thread, tags, null);
    }

    /** The same beginning, now that more is known of which test it is. */
    public TestStarted as(String itsKey, String itsName) {
        return new TestStarted(at, id, in, itsKey, itsName, className, methodName, thread, tags, source);
    }
}
