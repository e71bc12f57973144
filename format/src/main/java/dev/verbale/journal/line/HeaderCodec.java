package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade.Header;

/** A header of a request or a response. */
final class HeaderCodec extends ObjectCodec<Header> {

    static final HeaderCodec CODEC = new HeaderCodec();

    private final TextField name = text("name", "");
    private final TextField value = text("value", "");

    private HeaderCodec() {
        super("header", "A header of a request or a response.");
    }

    @Override
    void write(JsonLine line, Header header) {
        name.write(line, header.name());
        value.write(line, header.value());
    }

    @Override
    Header read(Fields fields) {
        return new Header(name.read(fields), value.read(fields));
    }
}
