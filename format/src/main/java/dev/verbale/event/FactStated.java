package dev.verbale.event;

/**
 * Something true of the whole run was stated; a later value for the same name replaces an earlier one.
 *
 * @since 0.2.0
 */
public record FactStated(long at, String name, String value) implements Event {

    /** The name of the fact that tests ran which no adapter reported. */
    public static final String NOT_RECORDED = "not recorded";

    /** The name of the fact that only some tests of the suite were asked for, and how, such as {@code -Dtest=RotaTest}. */
    public static final String SELECTION = "selection";

    /** The name of the fact that this is one of the parts that a suite was split into, such as {@code 2 of 4}. */
    public static final String SHARD = "shard";

    /** The name of the fact that this is a copy of a run that does not have all of it, and what it lacks. */
    public static final String LEFT_OUT = "left out";

    /** The name of the fact by which words the run is found, such as {@code nightly, staging}. */
    public static final String TAGS = "tags";

    /** The name of the fact that parts of a run are not there that others of them promise, such as {@code 3 of 4, 4 of 4}. */
    public static final String ABSENT_SHARDS = "absent shards";
}
