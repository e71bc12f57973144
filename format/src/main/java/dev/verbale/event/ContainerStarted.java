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
        @Nullable String methodName) implements Event {}
