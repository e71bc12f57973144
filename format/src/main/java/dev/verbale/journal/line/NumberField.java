package dev.verbale.journal.line;

import org.jspecify.annotations.Nullable;

/** A whole number within bounds. One that may be left out has a number that it stands for then. */
final class NumberField extends Field {

    /** Ten years: no run lasts longer, and sums of such times are far from what a number can hold. */
    static final long LONGEST_MICROS = 10L * 366 * 86_400 * 1_000_000;

    private final long min;
    private final long max;
    private final @Nullable Long absent;

    /** @param absent what it stands for where it is left out; null where nothing does */
    NumberField(String name, String meaning, boolean required, long min, long max, @Nullable Long absent) {
        super(name, meaning, required);
        this.min = min;
        this.max = max;
        this.absent = absent;
    }

    void write(JsonLine line, long number) {
        if (absent != null && number == absent) return;
        line.json.writeName(json);
        line.json.writeNumber(number);
    }

    /** Nothing where there is none. */
    void write(JsonLine line, @Nullable Long number) {
        if (number != null) write(line, number.longValue());
    }

    long read(Fields fields) {
        Long number = readOrNull(fields);
        if (number != null) return number;
        if (absent == null) throw fields.lacks(name());
        return absent;
    }

    int readInt(Fields fields) {
        return (int) read(fields); // its bounds fit
    }

    @Nullable
    Long readOrNull(Fields fields) {
        Long number = fields.numberOrNull(name());
        if (number != null && (number < min || number > max) && !number.equals(absent))
            throw fields.refuses(name(), number + " is not from " + min + " to " + max);
        return number;
    }

    @Override
    public String schema() {
        long least = absent != null && absent < min ? absent : min;
        return "{\"type\": \"integer\", \"minimum\": " + least + ", \"maximum\": " + max + "}";
    }
}
