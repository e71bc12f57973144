package dev.verbale.journal.line;

import dev.verbale.vocabulary.About.Link;

/** A link of a test. */
final class LinkCodec extends ObjectCodec<Link> {

    static final LinkCodec CODEC = new LinkCodec();

    private final TextField name = text("name", "such as `GARDEN-17`");
    private final TextField address = optionalText("address", "where it is");

    private LinkCodec() {
        super("link", "Something elsewhere that belongs to a test.");
    }

    @Override
    void write(JsonLine line, Link link) {
        name.write(line, link.name());
        address.write(line, link.address());
    }

    @Override
    Link read(Fields fields) {
        return new Link(name.read(fields), address.readOrNull(fields));
    }
}
