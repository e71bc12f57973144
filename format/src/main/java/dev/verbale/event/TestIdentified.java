package dev.verbale.event;

/**
 * Which test it is became known after it began: what stands here replaces what {@link TestStarted} says. Some frameworks run a
 * test's set-up before they choose its data.
 *
 * @param key as in {@link TestStarted}
 * @param name as in {@link TestStarted}
 * @since 0.2.0
 */
public record TestIdentified(long at, int id, String key, String name) implements Event.OfBegun {}
