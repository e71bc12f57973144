package dev.verbale.lake;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.testing.MarkedPage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the page says of the files is what they are, for engines that know nothing of us. */
class LakeDocumentTest {

    private static final Path PAGE = Path.of("../docs/lake.md");
    private static final Path QUESTIONS = Path.of("../docs/questions/README.md");
    private static final Map<String, String> PARQUET = Map.of(
            "bigint", "INT64",
            "integer", "INT32",
            "smallint", "INT32",
            "boolean", "BOOLEAN",
            "varchar", "BYTE_ARRAY",
            "timestamptz", "INT64");

    @TempDir
    Path root;

    @Test
    void the_page_has_each_table_with_each_column() throws Exception {
        var made = new StringBuilder();
        for (LakeTable table : LakeTable.values()) {
            made.append("\n### `").append(table.word()).append("`\n\nA row is ").append(table.meaning());
            made.append(". Sorted by `")
                    .append(table.order().replace(", ", "`, `"))
                    .append("`.\n\n");
            made.append("| column | type | |\n|---|---|---|\n");
            for (LakeTable.Column column : table.columns())
                made.append("| `")
                        .append(column.name())
                        .append("` | ")
                        .append(column.type())
                        .append(column.isNullable() ? ", or null" : "")
                        .append(" | ")
                        .append(column.meaning())
                        .append(" |\n");
        }
        MarkedPage.assertHas(
                PAGE, "tables", made.append('\n').toString(), "mvn test -pl lake -am -Dtest=LakeDocumentTest");
    }

    @Test
    void the_files_have_these_columns_and_are_packed_as_it_says() throws Exception {
        new Lake(root)
                .add(
                        "orto",
                        new MadeUpRuns(1, 40).runs(3).stream().map(LakeRun::of).toList());
        try (var engine = DriverManager.getConnection("jdbc:duckdb:");
                var statement = engine.createStatement()) {
            for (LakeTable table : LakeTable.values()) {
                if (table == LakeTable.EXCHANGES) continue; // those of whole runs
                String files = "'" + root.resolve(table.word()) + "/*/*/*.parquet'";
                Map<String, String> found = new TreeMap<>();
                try (ResultSet columns = statement.executeQuery("select name, type, logical_type from parquet_schema("
                        + files + ") where num_children is null")) {
                    while (columns.next()) {
                        found.put(columns.getString(1), columns.getString(2));
                        if (columns.getString(1).equals("run_started"))
                            assertThat(columns.getString(3)).contains("isAdjustedToUTC=1", "MICROS");
                    }
                }
                for (LakeTable.Column column : table.columns())
                    if (PARQUET.containsKey(column.type()))
                        assertThat(found).as(table.word()).containsEntry(column.name(), PARQUET.get(column.type()));
                try (ResultSet packed =
                        statement.executeQuery("select distinct compression from parquet_metadata(" + files + ")")) {
                    packed.next();
                    assertThat(packed.getString(1)).isEqualTo("ZSTD");
                }
            }
        }
    }

    @Test
    void the_page_names_the_version_of_the_engine_that_is_tested() throws Exception {
        var version = Pattern.compile("<duckdb.version>([^<]+)<").matcher(Files.readString(Path.of("../pom.xml")));
        assertThat(version.find()).isTrue();
        assertThat(Files.readString(PAGE)).contains("org.duckdb:duckdb_jdbc:" + version.group(1) + " ");
    }

    /** Each question stands there with an answer, whose columns are those that it has. */
    @Test
    void each_question_is_listed_with_an_answer() throws Exception {
        Map<String, String> listed = new TreeMap<>();
        for (MatchResult one : Pattern.compile("## `([a-z-]+\\.sql)`\\n\\n[^`]+\\n```text\\n(.*)\\n")
                .matcher(Files.readString(QUESTIONS))
                .results()
                .toList()) listed.put(one.group(1), one.group(2).strip());
        assertThat(listed.keySet()).containsExactlyElementsOf(Questions.names());
        new Lake(root)
                .add(
                        "orto",
                        new MadeUpRuns(1, 10).runs(3).stream().map(LakeRun::of).toList());
        try (LakeTables tables = LakeTables.of(new Lake(root), null)) {
            for (String name : Questions.names()) {
                List<String> columns = new ArrayList<>();
                tables.reader().ask(Questions.read(name), new dev.verbale.query.AnswerRows() {
                    @Override
                    public void columns(List<String> names) {
                        columns.addAll(names);
                    }

                    @Override
                    public boolean row(List<Object> values) {
                        return false;
                    }
                });
                assertThat(List.of(listed.get(name).split(" +"))).as(name).isEqualTo(columns);
            }
        }
    }
}
