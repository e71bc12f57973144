package dev.verbale.internal;

import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestDescribed.Link;
import dev.verbale.recorder.Description;
import dev.verbale.recorder.RecorderOptions.LinkPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;

/** Writes down what is said about tests, with the addresses of what they are linked to. */
final class Descriptions {

    private record Known(Pattern name, String address) {}

    private final FileRecorder recorder;
    private final List<Known> known = new ArrayList<>();

    Descriptions(FileRecorder recorder, List<LinkPattern> patterns) {
        this.recorder = recorder;
        for (LinkPattern pattern : patterns) {
            try {
                known.add(new Known(Pattern.compile(pattern.name()), pattern.address()));
            } catch (PatternSyntaxException broken) {
                recorder.minutes.problems.add("the link pattern " + pattern.name() + ": " + broken);
            }
        }
    }

    void write(ScopeNode here, Description said) {
        ScopeNode test = here;
        while (test.outer != null && test.outer.owner == test.owner) test = test.outer; // out of the steps
        recorder.minutes.append(
                test,
                new TestDescribed(
                        recorder.minutes.clock.micros(),
                        test.id(),
                        cut(said.text()),
                        cut(said.severity()),
                        cut(said.owner()),
                        said.links().stream().map(this::link).toList()));
    }

    private @Nullable String cut(@Nullable String text) {
        return text == null ? null : recorder.shortening.cut(text, LongText.LONGEST);
    }

    private Link link(String given) {
        String name = recorder.name(given);
        if (name.matches("https?://\\S+")) return new Link(name, name);
        for (Known one : known) {
            Matcher matcher = one.name().matcher(name);
            if (matcher.matches()) return new Link(name, matcher.replaceFirst(one.address()));
        }
        return new Link(name, null);
    }
}
