package dev.verbale.imports;

/**
 * What our own export adds to each case, as properties: with it a run that is exported and imported is the same run to a history.
 *
 * @since 0.2.0
 */
public final class OwnProperties {

    /** The key of the test or the class, without its module. */
    public static final String KEY = "verbale.key";

    /** The module of its build, where that has several. */
    public static final String MODULE = "verbale.module";

    /** The name of the method, where it is not that of the case. */
    public static final String METHOD = "verbale.method";

    /** The case is a class that broke outside its tests. */
    public static final String CONTAINER = "verbale.container";

    /** The outcome, where XML has no word for it. */
    public static final String OUTCOME = "verbale.outcome";

    private OwnProperties() {}
}
