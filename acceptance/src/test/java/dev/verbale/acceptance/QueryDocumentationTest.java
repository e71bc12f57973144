package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.query.AnswerRows;
import dev.verbale.query.RunTables;
import dev.verbale.query.TableReader;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The tables are as the documentation has them, and each question in it is one. */
class QueryDocumentationTest {

    private static final Pattern ROW = Pattern.compile("(?m)^\\| `(\\w+)` \\| [^|]* \\| ([^|]*) \\|$");
    private static final Pattern QUESTION = Pattern.compile("verbale runs query [^\"\\n]*\"(select [^\"]+)\"");

    private static List<List<Object>> answer(RunTables tables, String sql) throws Exception {
        List<List<Object>> rows = new ArrayList<>();
        tables.reader().ask(sql, new AnswerRows() {
            @Override
            public void columns(List<String> names) {}

            @Override
            public boolean row(List<Object> values) {
                return rows.add(values);
            }
        });
        return rows;
    }

    @Test
    void the_page_lists_all_tables_with_all_columns() throws Exception {
        Map<String, List<String>> documented = new TreeMap<>();
        Matcher row = ROW.matcher(Files.readString(Checkout.ROOT.resolve("docs/query.md")));
        while (row.find()) {
            List<String> columns = new ArrayList<>();
            Matcher column = Pattern.compile("`(\\w+)`").matcher(row.group(2));
            while (column.find()) columns.add(column.group(1));
            documented.put(row.group(1), columns);
        }
        Map<String, List<String>> there = new TreeMap<>();
        try (RunTables tables = RunTables.inMemory()) {
            for (List<Object> one : answer(tables, TableReader.COLUMNS))
                there.computeIfAbsent(String.valueOf(one.get(0)), name -> new ArrayList<>())
                        .add(String.valueOf(one.get(1)));
        }

        assertThat(documented).isEqualTo(there);
    }

    @Test
    void each_question_is_one() throws Exception {
        int found = 0;
        try (RunTables tables = RunTables.inMemory()) {
            for (String page : List.of("README.md", "docs/query.md")) {
                Matcher question = QUESTION.matcher(Files.readString(Checkout.ROOT.resolve(page)));
                while (question.find()) {
                    assertThat(answer(tables, question.group(1))).isNotNull();
                    found++;
                }
            }
        }
        assertThat(found).isGreaterThanOrEqualTo(5);
    }
}
