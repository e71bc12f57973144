package dev.verbale.journal.line;

import java.util.List;

/** A row of a table below a step. */
final class TableRowCodec extends ObjectCodec<List<String>> {

    static final TableRowCodec CODEC = new TableRowCodec();

    private final TextsField cells = texts("cells", "from the left");

    private TableRowCodec() {
        super("row", "A row of a table.");
    }

    @Override
    void write(JsonLine line, List<String> row) {
        cells.write(line, row);
    }

    @Override
    List<String> read(Fields fields) {
        return cells.read(fields);
    }
}
