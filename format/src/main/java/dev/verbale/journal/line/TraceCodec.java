package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Trace;

/** Where the server's own trace of an exchange is. */
final class TraceCodec extends ObjectCodec<Trace> {

    static final TraceCodec CODEC = new TraceCodec();

    private final WordField id = word("id", "the trace's, as the header `traceparent` of the request said it");
    private final TextField address = optionalText("address", "where a person finds the trace");

    private TraceCodec() {
        super("trace", "Where the server's own trace of an exchange is.");
    }

    @Override
    void write(JsonLine line, Trace trace) {
        id.write(line, trace.id());
        address.write(line, trace.address());
    }

    @Override
    Trace read(Fields fields) {
        return new Trace(id.read(fields), address.readOrNull(fields));
    }
}
