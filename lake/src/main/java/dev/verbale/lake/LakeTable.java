package dev.verbale.lake;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * A table of a lake: a folder with files by project and day. Columns are only ever added, at the end; a column that a file does not have
 * is null in its rows.
 *
 * @since 0.2.0
 */
public enum LakeTable {
    /** A run. */
    RUNS(
            "a run",
            "run_started, run_id",
            column(
                    "run_id",
                    "bigint",
                    "by which other tables mean it: the first 8 bytes of the SHA-256 of its name, a line feed and its start"),
            column("run", "varchar", "its name"),
            column("run_started", "timestamptz", "when it began, to the millisecond"),
            column("duration_ms", "bigint", "how long it took"),
            column("branch", "varchar", "empty where nobody said"),
            column("commit_id", "varchar", "empty where nobody said"),
            column("complete", "boolean", "whether nothing of it is missing"),
            column("part", "varchar", "which part of its suite it was meant to run; empty for the whole"),
            column("made_up", "boolean", "whether nothing of it ever ran"),
            column("tests", "integer", "how many it had"),
            column("needing_attention", "integer", "how many of them, and of their classes, somebody has to look at"),
            column("broken", "integer", "classes that broke outside their tests"),
            column("facts", "map(varchar, varchar)", "what else was known of it, such as the browser")),
    /** A test, once when it is first seen and again when what is said of it changes. */
    TESTS(
            "a test, when it was first seen, and again where what is said here of it changed",
            "test_id",
            column("test_id", "bigint", "by which other tables mean it: the first 8 bytes of the SHA-256 of its key"),
            column("test", "varchar", "its key"),
            column("module", "varchar", "of the build; empty where it has one only"),
            column("name", "varchar", "what a reader sees, with the names around it"),
            nullable("class_name", "varchar", "null where it is of no class"),
            nullable("method_name", "varchar", "null where it is of no method"),
            column("tags", "varchar", "with blanks between them"),
            nullable("owner", "varchar", "null where nobody says"),
            column(
                    "seen",
                    "timestamptz",
                    "when the run began that says so: of several rows of a test the latest counts")),
    /** An attempt of a test in a run. */
    ATTEMPTS(
            "an attempt of a test in a run. A run that was only remembered has the last attempt of each test",
            "test_id, run_started, run_id, attempt",
            column("test_id", "bigint", "which test"),
            column("run_id", "bigint", "which run"),
            column("run", "varchar", "its name"),
            column("run_started", "timestamptz", "when the run began"),
            column("branch", "varchar", "of the run"),
            column("attempt", "smallint", "counted from 1"),
            column("last", "boolean", "whether none came after it: it is what became of the test"),
            column("outcome", "varchar", "as in the format's list of outcomes"),
            column("needs_attention", "boolean", "whether somebody has to look at it"),
            column("flaky", "boolean", "whether it passed after an attempt that had not"),
            column("duration_ms", "integer", "how long it took"),
            nullable("reason", "varchar", "why it did not pass; null where it did, or nobody knows"),
            nullable("worker", "smallint", "which of the run's workers ran it, from 0; null where there was one only")),
    /** A reason in a run. */
    REASONS(
            "a reason for which tests of a run did not pass",
            "reason, run_started",
            column("reason", "varchar", "its id"),
            column("title", "varchar", "as that run says it"),
            column("run_id", "bigint", "which run"),
            column("run_started", "timestamptz", "when the run began"),
            column("tests", "integer", "how many tests of the run")),
    /** An outermost step of the last attempt of a test. */
    STEPS(
            "an outermost step of the last attempt of a test",
            "test_id, run_started, run_id, step",
            column("test_id", "bigint", "which test"),
            column("run_id", "bigint", "which run"),
            column("run", "varchar", "its name"),
            column("run_started", "timestamptz", "when the run began"),
            column("attempt", "smallint", "counted from 1"),
            column("step", "smallint", "counted from 1"),
            column("name", "varchar", "what a reader sees"),
            column("duration_ms", "integer", "how long it took")),
    /** A request with its response. */
    EXCHANGES(
            "a request with its response; of runs whose folders were at hand",
            "method, address, run_started, run_id, test_id, attempt, exchange",
            column("test_id", "bigint", "which test; 0 where it belongs to none"),
            column("run_id", "bigint", "which run"),
            column("run", "varchar", "its name"),
            column("run_started", "timestamptz", "when the run began"),
            column("attempt", "smallint", "counted from 1; 0 where it belongs to no test"),
            column("exchange", "integer", "counted from 1 in its attempt"),
            column("method", "varchar", "such as GET"),
            column("address", "varchar", "without its query and its fragment"),
            nullable("status", "smallint", "such as 201; null where no response came"),
            column("duration_ms", "integer", "how long it took"));

    private final String meaning;
    private final String order;

    @SuppressWarnings("ImmutableEnumChecker") // nobody changes the copy
    private final List<Column> columns;

    LakeTable(String meaning, String order, Column... columns) {
        this.meaning = meaning;
        this.order = order;
        this.columns = List.of(columns);
    }

    /**
     * A column.
     *
     * @param type as DuckDB calls it
     * @param isNullable whether a row may have no value in it
     */
    public record Column(String name, String type, boolean isNullable, String meaning) {}

    private static Column column(String name, String type, String meaning) {
        return new Column(name, type, false, meaning);
    }

    private static Column nullable(String name, String type, String meaning) {
        return new Column(name, type, true, meaning);
    }

    /** The name of its folder. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** What a row of it is. */
    public String meaning() {
        return meaning;
    }

    /** By which the rows of a file are ordered. */
    public String order() {
        return order;
    }

    /** In the order in which files have them. */
    public List<Column> columns() {
        return columns;
    }

    String names() {
        return columns.stream().map(Column::name).collect(Collectors.joining(", "));
    }

    String definitions() {
        return columns.stream()
                .map(column -> column.name() + " " + column.type() + (column.isNullable() ? "" : " not null"))
                .collect(Collectors.joining(", "));
    }
}
