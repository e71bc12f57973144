package dev.verbale.journal.line;

import dev.verbale.event.AboutStated;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.About.Link;
import java.util.List;

/** Lines of {@link AboutStated}. */
final class AboutStatedCodec extends EventCodec<AboutStated> {

    private final NumberField id = id("id", "of the test");
    private final TextField text = optionalText("text", "what it is about");
    private final TextField severity =
            optionalText("severity", "how grave a failure of it is, in the suite's own words");
    private final TextField owner = optionalText("owner", "who cares for it");
    private final ObjectsField<Link> links = objects("links", "what belongs to it elsewhere", LinkCodec.CODEC);

    AboutStatedCodec() {
        super(
                AboutStated.class,
                "about",
                "Somebody said what a test is about. What a later one leaves out stays; links are added up.");
    }

    @Override
    void write(JsonLine line, AboutStated event) {
        id.write(line, event.id());
        text.write(line, event.about().text());
        severity.write(line, event.about().severity());
        owner.write(line, event.about().owner());
        links.write(line, event.about().links());
    }

    @Override
    AboutStated read(Fields fields) {
        About.Builder about = About.of()
                .text(text.readOrNull(fields))
                .severity(severity.readOrNull(fields))
                .owner(owner.readOrNull(fields));
        links.read(fields).forEach(about::link);
        return new AboutStated(at(fields), id.readInt(fields), about.build());
    }

    @Override
    public List<AboutStated> samples() {
        return List.of(
                new AboutStated(
                        7,
                        2,
                        About.of()
                                .text("swapping")
                                .severity("grave")
                                .owner("Ada")
                                .link(new Link("GARDEN-17", "https://x"))
                                .link("b")
                                .build()),
                new AboutStated(7, 2, About.NOTHING));
    }
}
