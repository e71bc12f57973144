package dev.verbale.engine.step;

import dev.verbale.Recorder;
import dev.verbale.engine.text.Texts;
import dev.verbale.vocabulary.StepArgument;
import java.util.ArrayList;
import java.util.List;

/** What stands below a step, as a journal may hold it: of a size that somebody reads, and without its secrets. */
final class StepArguments {

    private static final int MAX_ROWS = 500;

    private final Texts texts;

    StepArguments(Texts texts) {
        this.texts = texts;
    }

    StepArgument shown(StepArgument argument) {
        List<List<String>> rows = argument.rows();
        List<List<String>> shown = new ArrayList<>();
        for (int row = 0; row < rows.size() && row < MAX_ROWS; row++) shown.add(row(rows, row));
        if (rows.size() > MAX_ROWS) shown.add(List.of("… and " + (rows.size() - MAX_ROWS) + " more rows"));
        return new StepArgument(texts.cutOrNull(argument.text(), Texts.LONGEST), shown);
    }

    /** A name may stand above the secret, or before it. */
    private List<String> row(List<List<String>> rows, int row) {
        List<String> head = rows.get(0);
        List<String> cells = rows.get(row);
        List<String> shown = new ArrayList<>();
        for (int i = 0; i < cells.size(); i++) {
            boolean secret = row > 0 && i < head.size() && texts.isSecretName(head.get(i));
            if (!secret && i == 1) secret = texts.isSecretName(cells.get(0)) && !texts.isSecretName(cells.get(1));
            shown.add(secret ? Recorder.MASK : texts.name(cells.get(i)));
        }
        return shown;
    }
}
