package dev.verbale.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringWriter;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

class AnswerTextTest {

    private static String written(AnswerText format, List<String> names, Object[]... rows) throws Exception {
        var out = new StringWriter();
        AnswerWriting writing = format.to(out);
        writing.columns(names);
        for (Object[] row : rows) writing.row(Arrays.asList(row));
        writing.end();
        return out.toString();
    }

    @Test
    void a_table_has_numbers_to_the_right_and_nothing_that_a_terminal_acts_on() throws Exception {
        String table = written(
                AnswerText.TABLE,
                List.of("test", "ms"),
                new Object[] {"opens\u001B[31m the\nshed", 7},
                new Object[] {"x".repeat(80), 1200},
                new Object[] {null, null});

        assertThat(table)
                .startsWith("test  ")
                .contains("opens [31m the shed")
                .contains("…  1200\n")
                .contains("     7\n")
                .endsWith("3 rows\n")
                .doesNotContain("\u001B");
    }

    @Test
    void values_keep_their_kinds_in_json() throws Exception {
        String json = written(
                AnswerText.JSON,
                List.of("a", "b", "c", "d", "e", "f"),
                new Object[] {
                    "q\"\u0000", new BigDecimal("12345678901234567890.10"), true, null, Double.NaN, Instant.EPOCH
                },
                new Object[] {1, 2, 3, 4, 5, 6});

        assertThat(json).isEqualTo("""
                        [
                        {"a":"q\\"\\u0000","b":12345678901234567890.10,"c":true,"d":null,"e":"NaN","f":"1970-01-01T00:00:00Z"},
                        {"a":1,"b":2,"c":3,"d":4,"e":5,"f":6}
                        ]
                        """);
        try (var parser = new JsonFactory().createParser(ObjectReadContext.empty(), json)) {
            assertThat(parser.nextToken()).isEqualTo(JsonToken.START_ARRAY);
            parser.skipChildren();
            assertThat(parser.nextToken()).isNull();
        }
    }

    @Test
    void a_spreadsheet_takes_nothing_for_a_formula() throws Exception {
        assertThat(written(
                        AnswerText.CSV, List.of("a", "b"), new Object[] {"=1+1", -5}, new Object[] {"a,\"b\"\n", null}))
                .isEqualTo("a,b\r\n'=1+1,-5\r\n\"a,\"\"b\"\"\n\",\r\n");
    }

    @ParameterizedTest
    @EnumSource(AnswerText.class)
    void no_rows_are_an_answer_too(AnswerText format) throws Exception {
        assertThat(written(format, List.of("a"))).isIn("a\n─\n0 rows\n", "a\r\n", "[]\n");
    }
}
