package dev.verbale.event;

/**
 * Something true of the whole run was stated; a later value for the same name replaces an earlier one.
 *
 * @since 0.2.0
 */
public record FactStated(long at, String name, String value) implements Event {

    /** The name of the fact that tests ran which no adapter reported. */
    public static final String NOT_RECORDED = "not recorded";
}
