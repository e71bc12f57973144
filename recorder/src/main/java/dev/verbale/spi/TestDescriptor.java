package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is known of a test or container before it begins.
 *
 * @param key the same in every run, on every machine and in every language
 * @param name what a reader sees
 * @param className the class it comes from, where there is one
 * @param methodName the method it comes from, where there is one
 * @param tags in the order of the alphabet, whatever order they are given in
 * @param source where it is written, as a file and a line, where its class does not say it
 * @since 0.2.0
 */
public record TestDescriptor(
        String key,
        String name,
        @Nullable String className,
        @Nullable String methodName,
        List<String> tags,
        @Nullable String source) {

    /** One whose class says where it is written. */
    public TestDescriptor(
            String key, String name, @Nullable String className, @Nullable String methodName, List<String> tags) {
        this(key, name, className, methodName, tags, null);
    }

    public TestDescriptor {
        tags = SafeCopies.list(tags);
        if (tags.size() > 1) tags = tags.stream().sorted().toList();
    }
}
