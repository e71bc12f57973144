package dev.verbale.query.remembered;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;

/** The columns of {@code tests}, in their order; the same as those of whole runs. */
enum ResultColumn {
    RUN_ID("integer"),
    RUN("varchar(2000)"),
    RUN_STARTED("timestamp(3) with time zone"),
    BRANCH("varchar(2000)"),
    TEST("varchar"),
    MODULE("varchar"),
    NAME("varchar"),
    CLASS_NAME("varchar"),
    METHOD_NAME("varchar"),
    TAGS("varchar"),
    OWNER("varchar"),
    OUTCOME("varchar(100)"),
    NEEDS_ATTENTION("boolean"),
    DURATION_MS("integer"),
    ATTEMPTS("smallint"),
    FLAKY("boolean"),
    REASON("varchar(200)"),
    LABEL("varchar(2000)");

    static final ResultColumn[] ALL = values();

    private final String type;

    ResultColumn(String type) {
        this.type = type;
    }

    String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** All of them, as a table is made of them. */
    static String definitions() {
        return Arrays.stream(ALL).map(one -> one.word() + " " + one.type).collect(Collectors.joining(", "));
    }
}
