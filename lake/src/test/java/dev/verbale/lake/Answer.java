package dev.verbale.lake;

import dev.verbale.query.AnswerRows;
import dev.verbale.query.QueryException;
import dev.verbale.query.TableReader;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;

/** An answer as text, by which those of several engines are compared: they differ in the types of their numbers. */
final class Answer implements AnswerRows {

    final List<String> rows = new ArrayList<>();

    static List<String> of(TableReader reader, String sql) throws QueryException, IOException {
        var answer = new Answer();
        reader.ask(sql, answer);
        return answer.rows;
    }

    @Override
    public void columns(List<String> names) {}

    @Override
    public boolean row(List<Object> values) {
        rows.add(String.join(" | ", values.stream().map(Answer::text).toList()));
        return true;
    }

    static String text(Object value) {
        return value instanceof Number number
                ? new BigDecimal(number.toString())
                        .setScale(3, RoundingMode.HALF_UP)
                        .toPlainString()
                : String.valueOf(value);
    }
}
